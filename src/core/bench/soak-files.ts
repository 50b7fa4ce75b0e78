import Papa from 'papaparse';
import type { Bench } from '@/core/design/design';
import { formatNominal, formatQuantity as q } from '@/core/quantity/format';
import { bandSvg } from './band-svg';
import type { Soak } from './soak';

/** A run of temperatures as a drawing for paper: the fitted course with its spread, and what was read. */
export const soakSvg = (name: string, soak: Soak, rows: Bench['soak']): string =>
  bandSvg({
    title: `${name}: soak`,
    heading: `${name}: the metal at full load, ends at ${q(soak.final.value, '°C')} ±${q(2 * soak.sigmaK, 'K')}`,
    note: 'line: fitted course; band: its spread; points: read',
    line: soak.course.map((p) => ({ x: p.minutes, y: p.value, sigma: p.sigma })),
    read: rows.map((r) => ({ x: r.afterS / 60, y: r.tempC })),
    xWords: (minutes) => `${formatNominal(minutes, '')} min`,
    yWords: (tempC) => formatNominal(tempC, '°C'),
  });

/** The temperatures as a table: minutes under full load, degrees. */
export const soakCsv = (rows: Bench['soak']): string =>
  `${Papa.unparse({ fields: ['minutes', 'metal C'], data: rows.map((r) => [r.afterS / 60, r.tempC]) }, { newline: '\n' })}\n`;
