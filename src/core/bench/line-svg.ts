import type { LoadRow } from '@/core/design/design';
import { formatNominal, formatQuantity as q } from '@/core/quantity/format';
import { bandSvg } from './band-svg';
import type { ComputedLine } from './load-line';

/** A load line as a drawing for paper: the computed one with the band its tolerances leave, and what was read. */
export const lineSvg = (name: string, computed: ComputedLine, rows: readonly LoadRow[]): string =>
  bandSvg({
    title: `${name}: load line`,
    heading: `${name}: reservoir against load, at ${q(computed.mainsV, 'V')}`,
    note: 'line: the design; band: what its tolerances leave; points: read',
    line: computed.line.map((p) => ({ x: p.loadA, y: p.value, sigma: p.sigma })),
    read: rows.flatMap((r) => (r.reservoirV === null ? [] : [{ x: r.loadA, y: r.reservoirV }])),
    xWords: (amps) => formatNominal(amps, 'A'),
    yWords: (volts) => formatNominal(volts, 'V'),
  });
