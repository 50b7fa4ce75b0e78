'use client';

import { Popover } from 'radix-ui';
import { useEffect, useMemo, useState } from 'react';
import { termsIn, type Term } from '@/core/design/glossary';
import { markedWords } from './marked-words';
import { WordSaid } from './word-said';
import { whenIdle } from './when-idle';

/** What heads something: its words are explained where they stand. A sentence has its own. */
const HEADS = 'h1, h2, h3, h4, th, dt, legend, label, caption, summary';
/** Headings and heads of tables show which of their words are explained; labels of fields keep still. */
const MARKED = 'h1, h2, h3, h4, th, dt, caption';
/** A list of terms explains its heads by itself. */
const EXPLAINED = '[data-explained]';
/** Words are marked once the page has stood still so long, milliseconds: not at every step of a drag. */
const STILL_MS = 600;
/** A pointer that rests so long asks, milliseconds. */
const RESTS_MS = 350;

interface Said {
  terms: readonly Term[];
  /** What it is said beside. */
  at: DOMRect;
}

/** Says what a word of a heading, a table's head or a field's label means: under the pointer, a finger, or on F1. */
export function WordsInHeads() {
  const [said, setSaid] = useState<Said | null>(null);
  const anchor = useMemo(() => said && { current: { getBoundingClientRect: () => said.at } }, [said]);
  useEffect(() => startAsking(setSaid), []);
  useEffect(() => startMarking(), []);
  if (!said || !anchor) return null;
  return (
    <Popover.Root open onOpenChange={() => setSaid(null)}>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          role="status"
          sideOffset={5}
          collisionPadding={10}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          className="z-50 max-w-[330px] rounded border border-edge bg-paper px-3 py-2 text-[14px] leading-snug shadow-lg"
        >
          {said.terms.map((term) => (
            <p key={term.term}>
              <WordSaid term={term} />
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Listens for a pointer that rests, a finger, and F1. @returns ends it */
function startAsking(say: (said: Said | null) => void): () => void {
  let rests: ReturnType<typeof setTimeout> | undefined;
  let word: DOMRect | null = null;
  const hush = () => {
    clearTimeout(rests);
    word = null;
    say(null);
  };
  const ask = (x: number, y: number) => {
    const found = wordAt(x, y);
    word = found?.at ?? null;
    say(found);
  };
  const moved = (e: PointerEvent) => {
    if (e.pointerType === 'touch') return;
    clearTimeout(rests);
    if (word && !within(word, e)) hush();
    else if (!word && isHead(e.target)) rests = setTimeout(() => ask(e.clientX, e.clientY), RESTS_MS);
  };
  const touched = (e: PointerEvent) => {
    if (e.pointerType === 'touch' && isHead(e.target)) ask(e.clientX, e.clientY);
    else hush();
  };
  const pressed = (e: KeyboardEvent) => {
    if (e.key !== 'F1') return hush();
    const focused = document.activeElement;
    const terms = focused ? termsOf(focused) : [];
    if (terms.length === 0) return;
    e.preventDefault();
    say({ terms, at: focused!.getBoundingClientRect() });
  };
  document.addEventListener('pointermove', moved, { passive: true });
  document.addEventListener('pointerup', touched);
  document.addEventListener('keydown', pressed);
  document.addEventListener('scroll', hush, { capture: true, passive: true });
  return () => {
    hush();
    document.removeEventListener('pointermove', moved);
    document.removeEventListener('pointerup', touched);
    document.removeEventListener('keydown', pressed);
    document.removeEventListener('scroll', hush, { capture: true });
  };
}

const isHead = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest(HEADS) !== null && target.closest(EXPLAINED) === null;

/** A pixel of grace around a word, so that the pointer does not fall off its edge. */
const within = (r: DOMRect, { clientX: x, clientY: y }: PointerEvent): boolean =>
  x >= r.left - 1 && x <= r.right + 1 && y >= r.top - 1 && y <= r.bottom + 1;

/** The letter under a point: browsers answer one of two ways. */
function caretAt(x: number, y: number): [Text, number] | null {
  const place = 'caretPositionFromPoint' in document ? document.caretPositionFromPoint(x, y) : null;
  const range = place ? null : (document.caretRangeFromPoint?.(x, y) ?? null);
  const node = place?.offsetNode ?? range?.startContainer;
  return node instanceof Text ? [node, place?.offset ?? range!.startOffset] : null;
}

/** The term whose letters lie under a point of the window. */
function wordAt(x: number, y: number): Said | null {
  const caret = caretAt(x, y);
  if (!caret) return null;
  const [text, offset] = caret;
  for (const { from, to, term } of termsIn(text.data)) {
    if (offset < from || offset > to) continue;
    const range = document.createRange();
    range.setStart(text, from);
    range.setEnd(text, to);
    const at = [...range.getClientRects()].find((r) => x >= r.left && x <= r.right && y >= r.top && y <= r.bottom);
    if (at) return { terms: [term], at };
  }
  return null;
}

/** The terms of what a control is called: its labels, the head of its row, or what is written on it. */
export function termsOf(control: Element): Term[] {
  const labels = 'labels' in control ? [...((control.labels ?? []) as NodeListOf<HTMLLabelElement>)] : [];
  const named = (control.getAttribute('aria-labelledby') ?? '').split(' ').map((id) => document.getElementById(id));
  const texts = [
    ...labels.map((l) => l.textContent),
    ...named.map((n) => n?.textContent),
    control.getAttribute('aria-label'),
    control.matches('button, a, summary, [role]') ? control.textContent : null,
  ];
  return [...new Set(texts.flatMap((text) => termsIn(text ?? '').map((t) => t.term)))];
}

/** Marks, in headings and heads of tables, each term where it first stands on the page. @returns ends it */
function startMarking(): () => void {
  const highlights = globalThis.CSS?.highlights;
  // A browser without highlights explains the same words unmarked.
  if (!highlights) return () => {};
  let still: ReturnType<typeof setTimeout> | undefined;
  let off = () => {};
  const mark = () => {
    const room = document.querySelector('main');
    highlights.set('word', new Highlight(...(room ? markedWords(room, MARKED, EXPLAINED) : [])));
  };
  const changed = () => {
    off();
    clearTimeout(still);
    still = setTimeout(() => (off = whenIdle(mark)), STILL_MS);
  };
  changed();
  const watch = new MutationObserver(changed);
  watch.observe(document.body, { childList: true, characterData: true, subtree: true });
  return () => {
    off();
    clearTimeout(still);
    watch.disconnect();
    highlights.delete('word');
  };
}
