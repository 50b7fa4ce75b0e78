'use client';

import dynamic from 'next/dynamic';
import type { Question } from '@/core/study/two-sides';
import { DialogButton } from './dialog-button';
import { Loading, orSay } from './loading';

const load = () => import('./two-sides-list').then((m) => m.TwoSidesList);
const TwoSidesList = dynamic(orSay(load), { ssr: false, loading: Loading });

/** What each is asked by, and what its dialog is called. */
const QUESTIONS: Readonly<Record<Question, { ask: string; title: string }>> = {
  bank: { ask: 'One or many?', title: 'One large can, or several' },
  grade: { ask: '85 or 105?', title: '85 or 105 °C cans' },
  switch: { ask: 'One pole or two?', title: 'A switch of one pole or two' },
  precision: { ask: 'Precise or common?', title: 'Precise parts, or accept the error' },
};

/** Opens what speaks for either side of a choice, where the choice is made. */
export function TwoSides({ question }: { question: Question }) {
  return (
    <DialogButton
      ready={load}
      label={QUESTIONS[question].ask}
      title={QUESTIONS[question].title}
      description="Builders answer this differently. Both, on this design’s own values; nothing changes until you take one."
      wide
    >
      {(close) => <TwoSidesList question={question} onTaken={close} />}
    </DialogButton>
  );
}
