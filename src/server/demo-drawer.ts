import type { PartDraft, PartKind } from '@/core/drawer/part';

function salvaged(
  kind: PartKind,
  name: string,
  count: number,
  place: string,
  ratings: PartDraft['ratings'],
  note = '',
  known: PartDraft['known'] = 'measured',
): PartDraft {
  return { kind, name, ratings, known, condition: 'salvaged', count, priceEur: 0, place, note };
}

/** What lies in the workshop's drawer in the demo: enough for a cheaper proposal, and one tempting wrong choice. */
export function demoDrawer(): PartDraft[] {
  return [
    salvaged(
      'transformer',
      '15 V 40 VA from a tide computer',
      1,
      'shelf A, left',
      {
        secondaryV: 15,
        windings: 1,
        sizeVA: 40,
        regulationPct: 12,
        primaryV: 230,
      },
      'Hums a little; insulation tested.',
    ),
    salvaged('transformer', '2 × 18 V 30 VA, open frame', 1, 'shelf A, left', {
      secondaryV: 18,
      windings: 2,
      sizeVA: 30,
      regulationPct: 15,
      primaryV: 230,
    }),
    // The tempting wrong choice: plenty of volt-amperes, but it idles above what the regulators and cans stand.
    salvaged(
      'transformer',
      '30 V 120 VA ring core, nearly new',
      1,
      'shelf B',
      {
        secondaryV: 30,
        windings: 1,
        sizeVA: 120,
        regulationPct: 8,
        primaryV: 230,
      },
      'Looks just right for the slave-clock line. It is not: see what it idles at.',
    ),
    salvaged('transformer', '26 V 250 VA, home-wound, dome spare', 1, 'under the bench', {
      secondaryV: 26,
      windings: 1,
      sizeVA: 250,
      regulationPct: 6,
      primaryV: 230,
    }),
    salvaged('bridge', 'Bridge 10 A from a charger', 2, 'box 4', { outputA: 10, reverseV: 600, surgeA: 180 }),
    salvaged('bridge', 'Round bridge 1.5 A', 6, 'box 4', { outputA: 1.5, reverseV: 200, surgeA: 50 }),
    salvaged(
      'capacitor',
      '4700 µF 40 V, snap-in',
      4,
      'box 7',
      {
        capacitanceF: 4500e-6,
        ratedV: 40,
        esrOhm: 0.06,
        rippleA: 2.4,
        gradeC: 85,
        heightMm: 36,
      },
      'Measured at 100 Hz after reforming.',
    ),
    salvaged('capacitor', '10000 µF 63 V, screw terminals', 3, 'box 7', {
      capacitanceF: 9400e-6,
      ratedV: 63,
      esrOhm: 0.03,
      rippleA: 5.5,
      gradeC: 85,
      heightMm: 80,
    }),
    salvaged(
      'capacitor',
      '2200 µF 35 V, axial',
      5,
      'box 7',
      {
        capacitanceF: 1900e-6,
        ratedV: 35,
        esrOhm: 0.14,
        rippleA: 1.2,
        gradeC: 85,
        heightMm: 30,
      },
      'One of six had dried out and went to the bin.',
    ),
    salvaged(
      'regulator',
      '7812, pulled',
      3,
      'box 2',
      { outputV: 12, ratedA: 1, inputMaxV: 35, dropoutV: 2 },
      '',
      'data sheet',
    ),
    salvaged(
      'regulator',
      '78M18',
      4,
      'box 2',
      { outputV: 18, ratedA: 0.5, inputMaxV: 35, dropoutV: 2 },
      '',
      'data sheet',
    ),
    salvaged(
      'regulator',
      '317, on a scrap board',
      2,
      'box 2',
      { outputV: 1.25, ratedA: 1.5, inputMaxV: 40, dropoutV: 2.3, adjustable: 1 },
      '',
      'data sheet',
    ),
    salvaged(
      'transistor',
      'MJ15003, from a servo amplifier',
      4,
      'box 3',
      { collectorA: 20, ceoV: 140, lossW: 250, gain: 25 },
      'Tested on the curve tracer.',
    ),
    salvaged('transistor', '2N3055, metal', 3, 'box 3', { collectorA: 15, ceoV: 60, lossW: 115, gain: 20 }),
    salvaged('sink', 'Finned sink 2.5 K/W', 2, 'box 9', { kPerW: 2.5, heightMm: 50 }),
    salvaged('sink', 'Clip-on sink 20 K/W', 8, 'box 9', { kPerW: 20, heightMm: 20 }),
    salvaged('choke', '10 H 80 mA, potted', 1, 'shelf A, right', { inductanceH: 10, ratedA: 0.08, resistanceOhm: 260 }),
    salvaged('fuse', 'Fuse T 1 A', 9, 'tin', { ratedA: 1, ratedV: 250, timeLag: 1 }, '', 'data sheet'),
  ];
}
