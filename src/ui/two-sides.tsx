'use client';

import dynamic from 'next/dynamic';
import type { Question } from '@/core/study/two-sides';
import { DialogButton } from './dialog-button';
import { Loading, orSay } from './loading';

const load = () => import('./two-sides-list').then((m) => m.TwoSidesList);
const TwoSidesList = dynamic(orSay(load), { ssr: false, loading: Loading });

const TITLES: Readonly<Record<Question, string>> = {
  grade: '85 or 105 °C cans',
  switch: 'A switch of one pole or two',
  precision: 'Precise parts, or accept the error',
};

/** Opens what speaks for either side of a choice, where the choice is made. */
export function TwoSides({ question }: { question: Question }) {
  return (
    <DialogButton
      ready={load}
      label="Which is right?"
      title={TITLES[question]}
      description="Builders answer this differently. Both, on this design’s own values; nothing changes until you take one."
      wide
    >
      {(close) => <TwoSidesList question={question} onTaken={close} />}
    </DialogButton>
  );
}
