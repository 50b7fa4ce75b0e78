'use client';

import type { Pin, View } from './view';

const PINS_MAX = 6;
const key = (id: string) => `ember-rail-pins-${id}`;

/** The figures pinned to a design in this browser. */
export function keptPins(id: string): Pin[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(key(id)) ?? '[]');
    return Array.isArray(found) ? found.filter(isPin).slice(0, PINS_MAX) : [];
  } catch {
    return [];
  }
}

function isPin(value: unknown): value is Pin {
  return (
    typeof value === 'object' &&
    value !== null &&
    typeof (value as Pin).station === 'string' &&
    typeof (value as Pin).figure === 'string'
  );
}

export const isPinned = (pins: readonly Pin[], figure: string): boolean => pins.some((p) => p.figure === figure);

/** Pins a figure, or takes its pin out. Of more than six the oldest goes. */
export function togglePin(view: View, pin: Pin): void {
  const { pins, id } = view.getState();
  const next = isPinned(pins, pin.figure)
    ? pins.filter((p) => p.figure !== pin.figure)
    : [...pins, pin].slice(-PINS_MAX);
  view.setState({ pins: next });
  try {
    localStorage.setItem(key(id), JSON.stringify(next));
  } catch {
    // A browser that keeps nothing keeps them while the page is open.
  }
}
