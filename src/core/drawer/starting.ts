import { JUNCTION_CLASSES } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W, typicalSinkPrice } from '@/core/parts/heatsink';
import { ACROSS_MAX_V, ADJUSTABLE_IDS, ADJUSTABLE_PARTS, REFERENCE_V } from '@/core/parts/regulators/adjustable';
import { LOW_DROPOUT_PARTS } from '@/core/parts/regulators/low-dropout';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { STANDARD_SECONDARY_V, STANDARD_VA, typicalTransformerPrice } from '@/core/parts/transformer';
import { typicalCapacitorPrice, typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E3 } from '@/core/quantity/preferred';
import type { PartDraft, PartKind } from './part';

const cents = (eur: number) => Math.round(100 * eur) / 100;
const two = (x: number) => Number(x.toPrecision(2));

/** A part at typical ratings of its class, none of it in the drawer yet: something to pick from and to order by. */
function typical(kind: PartKind, name: string, ratings: PartDraft['ratings'], priceEur: number): PartDraft {
  return {
    kind,
    name,
    ratings,
    known: 'typical',
    condition: 'new',
    count: 0,
    priceEur: cents(priceEur),
    place: '',
    note: '',
  };
}

/** A starting drawer: generic parts in preferred values at typical ratings, count 0. Prices are rules of thumb. */
export function startingDrawer(): PartDraft[] {
  const out: PartDraft[] = [];
  for (const secondaryV of STANDARD_SECONDARY_V.filter((v) => [6, 9, 12, 15, 18, 24, 30, 36, 48].includes(v))) {
    for (const sizeVA of STANDARD_VA.filter((va) => [6, 16, 30, 50, 80, 120, 160, 225, 300].includes(va))) {
      for (const windings of [1, 2]) {
        const name = `${windings === 2 ? '2 × ' : ''}${formatNominal(secondaryV, 'V')}, ${formatNominal(sizeVA, 'VA')}`;
        out.push(
          typical(
            'transformer',
            name,
            { secondaryV, windings, sizeVA, primaryV: 230 },
            typicalTransformerPrice(sizeVA, windings),
          ),
        );
      }
    }
  }
  for (const d of JUNCTION_CLASSES) {
    const { averageA, reverseV, surgeA } = d;
    out.push(
      typical(
        'diode',
        d.name,
        { averageA, reverseV, surgeA, schottky: d.technology === 'Schottky' ? 1 : 0 },
        d.priceEur,
      ),
    );
  }
  for (const [outputA, reverseV, surgeA, eur] of [
    [1.5, 400, 50, 0.4],
    [4, 600, 150, 0.9],
    [10, 600, 200, 1.6],
    [25, 400, 300, 2.6],
    [35, 800, 400, 3.4],
  ] as const) {
    out.push(
      typical(
        'bridge',
        `Bridge ${formatNominal(outputA, 'A')}, ${formatNominal(reverseV, 'V')}`,
        { outputA, reverseV, surgeA },
        eur,
      ),
    );
  }
  for (const ratedV of CAPACITOR_VOLTS.filter((v) => v >= 16)) {
    for (const decade of [1e-6, 1e-5, 1e-4, 1e-3, 1e-2]) {
      for (const m of E3) {
        const capacitanceF = Number((m * decade).toPrecision(3));
        const joule = 0.5 * capacitanceF * ratedV * ratedV;
        if (joule < 0.003 || joule > 60) continue;
        out.push(
          typical(
            'capacitor',
            `${formatNominal(capacitanceF, 'F')} ${formatNominal(ratedV, 'V')}`,
            {
              capacitanceF,
              ratedV,
              esrOhm: two(typicalEsr(capacitanceF, ratedV)),
              rippleA: two(typicalRippleRating(capacitanceF, ratedV)),
              gradeC: 85,
            },
            typicalCapacitorPrice(capacitanceF, ratedV),
          ),
        );
      }
    }
  }
  for (const size of REGULATOR_SIZES) {
    for (const outputV of size.outputsV) {
      out.push(
        typical(
          'regulator',
          size.partNumber(outputV),
          { outputV, ratedA: size.ratedA, inputMaxV: size.inputMaxV(outputV), dropoutV: size.dropoutV },
          size.priceEur,
        ),
      );
    }
  }
  for (const name of ADJUSTABLE_IDS) {
    const p = ADJUSTABLE_PARTS[name];
    out.push(
      typical(
        'regulator',
        `${name}, adjustable`,
        { outputV: REFERENCE_V, ratedA: p.ratedA, inputMaxV: ACROSS_MAX_V, dropoutV: p.dropoutV, adjustable: 1 },
        p.priceEur,
      ),
    );
  }
  for (const p of Object.values(LOW_DROPOUT_PARTS)) {
    for (const outputV of [3.3, 5, 12].filter((v) => v + p.dropoutV < p.inputMaxV)) {
      out.push(
        typical(
          'regulator',
          `${p.name}, ${formatNominal(outputV, 'V')}`,
          { outputV, ratedA: p.ratedA, inputMaxV: p.inputMaxV, dropoutV: p.dropoutV },
          p.priceEur,
        ),
      );
    }
  }
  for (const t of PASS_TRANSISTORS) {
    out.push(
      typical('transistor', t.name, { collectorA: t.maxA, ceoV: t.maxV, lossW: t.powerW, gain: t.gain }, t.priceEur),
    );
  }
  for (const [inductanceH, ratedA, resistanceOhm, eur] of [
    [10, 0.06, 350, 14],
    [10, 0.1, 240, 18],
    [5, 0.2, 90, 19],
    [1, 0.5, 12, 17],
    [0.1, 2, 1.2, 16],
    [0.01, 5, 0.15, 12],
  ] as const) {
    out.push(
      typical(
        'choke',
        `Choke ${formatNominal(inductanceH, 'H')} ${formatNominal(ratedA, 'A')}`,
        { inductanceH, ratedA, resistanceOhm },
        eur,
      ),
    );
  }
  for (const kPerW of STANDARD_SINKS_K_PER_W) {
    out.push(typical('sink', `Heatsink ${formatNominal(kPerW, 'K/W')}`, { kPerW }, typicalSinkPrice(kPerW)));
  }
  for (const ratedA of [0.1, 0.16, 0.25, 0.4, 0.63, 1, 1.6, 2.5, 4, 6.3, 10]) {
    out.push(typical('fuse', `Fuse T ${formatNominal(ratedA, 'A')}`, { ratedA, ratedV: 250, timeLag: 1 }, 0.3));
  }
  return out;
}
