'use client';

import dynamic from 'next/dynamic';
import type { PanelProps } from './dialog-panel';
import { orSay } from './loading';

const load = () => import('./dialog-panel').then((m) => m.DialogPanel);
const Panel = dynamic(orSay(load), { ssr: false });

/** Has what a dialog is made of at hand before it is opened. */
export const readyDialog = (): void => void load();

/** A dialog; what it is made of is loaded with the first that opens. */
export function Dialog({ open, ...rest }: PanelProps & { open: boolean }) {
  return open ? <Panel {...rest} /> : null;
}
