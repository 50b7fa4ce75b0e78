'use client';

import dynamic from 'next/dynamic';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from 'react';
import { useStore } from 'zustand';
import { BANDS } from '@/core/picture/picture';
import { border } from './border';
import { DesignBar } from './design-bar';
import { downloadDesign } from './download';
import { guidedDesign, onGuided } from './guided';
import type { Action, Wish } from './palette';
import { placesOf, roomAt, roomPath, type RoomId } from './places';
import { useKeptScroll } from './kept-scroll';
import { letterKeys } from './letter-keys';
import { keptPins } from './pins';
import { SkipLinks } from './skip-links';
import { Street } from './street';
import { useDesign, useHistory, useSession, useView } from './session';
import { toggleTheme } from './theme';
import { whenIdle } from './when-idle';
import { orSay } from './loading';

const loadPalette = () => import('./palette').then((m) => m.Palette);
const Palette = dynamic(orSay(loadPalette), { ssr: false });
const Announcer = dynamic(
  orSay(() => import('./announcer').then((m) => m.Announcer)),
  { ssr: false },
);
const PinnedStrip = dynamic(
  orSay(() => import('./pinned-strip').then((m) => m.PinnedStrip)),
  { ssr: false },
);
const loadNotices = () => import('./frame-notices').then((m) => m.FrameNotices);
const FrameNotices = dynamic(orSay(loadNotices), { ssr: false });
const Keys = dynamic(
  orSay(() => import('./frame-dialogs').then((m) => m.Keys)),
  { ssr: false },
);
const Conflict = dynamic(
  orSay(() => import('./frame-dialogs').then((m) => m.Conflict)),
  { ssr: false },
);

const WordsHere = dynamic(
  orSay(() => import('./words-here').then((m) => m.WordsHere)),
  { ssr: false },
);
const Guide = dynamic(
  orSay(() => import('./guide').then((m) => m.Guide)),
  { ssr: false },
);

/** The first steps, on the design they are taken on: what shows them comes with them alone. */
function Guided() {
  const id = useView((s) => s.id);
  return useSyncExternalStore(onGuided, guidedDesign, () => null) === id ? <Guide /> : null;
}

/** The pinned figures, where there are any: what shows them comes with the first. */
function Pins() {
  const picture = useView((s) => s.picture);
  const pinned = useView((s) => s.pins.length > 0);
  return pinned && picture ? <PinnedStrip picture={picture} /> : null;
}

const NOTHING_YET: Wish = { letters: '', entered: false };

/** Rooms that fill the window instead of scrolling the page. */
const FILLING: ReadonlySet<RoomId> = new Set(['supply', 'scope', 'pick', 'sets', 'drawer']);

/** What surrounds every view of one design: top line, keys, actions, and the answer to a conflict. */
export function DesignFrame({ children }: { children: ReactNode }) {
  const session = useSession();
  const { view, document: store } = session;
  const design = useDesign();
  const history = useHistory();
  const router = useRouter();
  const [keys, setKeys] = useState(false);
  const [words, setWords] = useState(false);
  /** Null while the list of actions is closed. */
  const [wish, setWish] = useState<Wish | null>(null);
  const conflict = useView((s) => s.conflict);
  const id = useView((s) => s.id);
  const room = roomAt(usePathname(), id);
  useKeptScroll();
  const elsewhere = useView((s) => s.save === 'gone' || s.save === 'offline' || s.kept !== null);
  const refused = useStore(store, (s) => s.refused !== null);
  const noticed = elsewhere || refused;

  const paletteOpen = useRef(false);
  useEffect(() => {
    paletteOpen.current = wish !== null;
  }, [wish]);

  // What is likely to be wanted next is there by then, and still there when the program ends before the page does.
  useEffect(
    () =>
      whenIdle(() => {
        void loadPalette();
        void import('./frame-dialogs');
        void loadNotices();
        border().catch(() => undefined);
      }),
    [],
  );

  useEffect(() => view.setState({ pins: keptPins(id) }), [view, id]);

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      const target = event.target instanceof HTMLElement ? event.target : null;
      const typing = target !== null && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);
      const command = event.ctrlKey || event.metaKey;
      // Behind a dialog nothing is stepped back or switched, and what is pressed in it is its own.
      const behind = document.querySelector('[role="dialog"]') !== null;
      const inside = Boolean(target?.closest('[role="dialog"]'));
      const { undo, redo } = store.temporal.getState();
      if (command && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        paletteOpen.current = !paletteOpen.current;
        setWish(paletteOpen.current ? NOTHING_YET : null);
      } else if (inside || (behind && !paletteOpen.current)) {
        return;
      } else if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
      } else if (command && event.key.toLowerCase() === 'y') {
        event.preventDefault();
        redo();
      } else if (!typing && !command && !event.altKey) {
        // The list may still be on its way: what is typed meanwhile is for it.
        if (paletteOpen.current) {
          const entered = event.key === 'Enter';
          if (event.key.length !== 1 && !entered) return;
          // Or the letter would reach the field as well, which may stand by the time it is typed.
          event.preventDefault();
          setWish((it) => it && (entered ? { ...it, entered } : { ...it, letters: it.letters + event.key }));
          return;
        }
        if (event.key === '?') setKeys(true);
        if (!letterKeys()) return;
        const band = BANDS[Number(event.key) - 1];
        if (band) view.setState({ band });
        if (event.key === 'l' || event.key === 'L') view.setState({ lens: !view.getState().lens });
      }
    }
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, view]);

  const actions: Action[] = [
    { name: 'Undo', hint: 'Ctrl Z', run: () => history.undo() },
    { name: 'Redo', hint: 'Ctrl Shift Z', run: () => history.redo() },
    ...placesOf(design).flatMap((place) =>
      place.rooms.map((room) => ({
        name: `Go to ${room.name}`,
        hint: place.name,
        run: () => router.push(roomPath(id, room.id)),
      })),
    ),
    { name: 'Go to the shelf', run: () => router.push('/') },
    { name: 'New design', run: () => router.push('/new') },
    { name: 'Words on this page', run: () => setWords(true) },
    { name: 'Words: what every term means', run: () => router.push('/glossary') },
    { name: 'Backup and restore', run: () => router.push('/backup') },
    { name: 'Export this design as JSON', run: () => downloadDesign(store.getState().design) },
    { name: 'Theme: light or dark', run: toggleTheme },
    { name: 'Low line in front', hint: '1', run: () => view.setState({ band: 'low' }) },
    { name: 'Nominal line in front', hint: '2', run: () => view.setState({ band: 'nominal' }) },
    { name: 'High line in front', hint: '3', run: () => view.setState({ band: 'high' }) },
    { name: 'List of keys', hint: '?', run: () => setKeys(true) },
  ];

  return (
    <div
      className={`flex min-h-dvh flex-col print:h-auto print:overflow-visible ${FILLING.has(room) ? 'full:h-dvh full:overflow-hidden' : ''}`}
    >
      <SkipLinks room={room} />
      <Announcer />
      <header className="z-30 bg-paper full:sticky full:top-0 print:hidden">
        <DesignBar onKeys={() => setKeys(true)} onPalette={() => setWish(NOTHING_YET)} />
        <Street />
        <Pins />
        <Guided />
      </header>
      {noticed && <FrameNotices />}
      {children}
      {words && <WordsHere onClose={() => setWords(false)} />}
      {keys && <Keys onClose={() => setKeys(false)} />}
      {wish && (
        <Palette
          wish={wish}
          actions={actions}
          onLetters={(letters) => setWish({ letters, entered: false })}
          onClose={() => setWish(null)}
        />
      )}
      {conflict !== null && <Conflict />}
    </div>
  );
}
