/** Heatsinks as sold, by thermal resistance sink to air at a 50-75 K rise, K/W, largest last. */
export const STANDARD_SINKS_K_PER_W: readonly number[] = [
  25, 20, 15, 12, 10, 8, 6.5, 5, 4, 3.3, 2.7, 2.2, 1.8, 1.5, 1.2, 1, 0.8, 0.6, 0.5,
];

export interface Interface {
  id: 'dry' | 'paste' | 'mica' | 'pad';
  name: string;
  /** Case to sink, TO-220, K/W. */
  kPerW: number;
}

export const INTERFACES: readonly Interface[] = [
  { id: 'dry', name: 'Dry metal', kPerW: 1.2 },
  { id: 'paste', name: 'Paste', kPerW: 0.4 },
  { id: 'mica', name: 'Mica and paste', kPerW: 0.8 },
  { id: 'pad', name: 'Silicone pad', kPerW: 1.2 },
];

/** @throws RangeError for an id that is not an interface */
export function thermalInterface(id: string): Interface {
  const found = INTERFACES.find((i) => i.id === id);
  if (!found) throw new RangeError(`no thermal interface '${id}'`);
  return found;
}

/** Metal above this burns a finger (ISO 13732-1, short contact), °C. */
export const TOUCH_LIMIT_C = 60;

/** Typical hobby price, EUR. */
export function typicalSinkPrice(kPerW: number): number {
  return 0.4 + 7 / kPerW;
}
