import { formatQuantity } from '@/core/quantity/format';
import { modelOf } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { arrangementFacts } from '@/core/design/source';
import { windingCount } from '@/core/design/words';
import { inrush, magnetising } from '@/core/parts/mains-current';
import type { Figure, FigureInput } from '@/core/study/figure';
import type { Unit } from '@/core/quantity/parse';
import { of } from './context';

/** How the open-circuit volts of one winding follow from what is known, for a working: at nominal mains, or at so many volts of it. */
export function openVoltsWorking(
  design: Design,
  at?: { called: string; mainsV: number },
): Pick<Figure, 'expression' | 'inputs' | 'source'> {
  const { transformer, mains } = design;
  const { source } = transformer;
  const model = modelOf(design);
  const nominal = of('nominal mains', mains.voltageRms, 'V', 'chosen');
  const now = at ? of(at.called, at.mainsV, 'V') : nominal;
  switch (source.kind) {
    case 'plate':
      return {
        expression: `rated volts × (1 + regulation)${at ? ` × ${now.label} / nominal mains` : ''}`,
        inputs: [
          of('rated volts', transformer.ratedV, 'V', 'chosen'),
          of('regulation', 100 * model.regulation, '%', model.regulationKnown ? 'data sheet' : 'typical'),
          ...(at ? [now, nominal] : []),
        ],
        source: model.regulationKnown
          ? 'Nameplate.'
          : 'Nameplate, with the regulation typical of a laminated transformer of this size.',
      };
    case 'ohms':
    case 'test':
      return {
        expression: `open volts read × ${now.label} / mains then`,
        inputs: [
          of('open volts read', source.openV, 'V', 'measured'),
          of('mains then', source.mainsV, 'V', 'measured'),
          now,
        ],
        source: 'Your readings.',
      };
    case 'fitted':
      return {
        expression: `open volts fitted × ${now.label} / mains then`,
        inputs: [
          of('open volts fitted', source.openV, 'V', 'measured'),
          of('mains then', source.mainsV, 'V', 'measured'),
          now,
        ],
        source: `Fitted to your readings, ±${formatQuantity(source.voltsPct, '%', 2)}.`,
      };
    case 'wound':
      return {
        expression: `${now.label} × secondary turns / primary turns`,
        inputs: [
          now,
          of('secondary turns', source.plan.secondaryTurns, '', 'chosen'),
          of('primary turns', source.plan.primaryTurns, '', 'chosen'),
        ],
        source: 'The winding plan, or its ten test turns.',
      };
  }
}

/** How the copper of one winding, the primary's share included, follows from what is known, for a working. */
export function copperWorking(
  design: Design,
  copperC: number = design.transformer.hotC,
): Pick<Figure, 'expression' | 'inputs' | 'source' | 'assumes'> {
  const { transformer } = design;
  const { source } = transformer;
  const model = modelOf(design);
  const halves = windingCount(design);
  // Where both windings conduct at once each sees the primary's copper carry the pulse of both.
  const together = arrangementFacts(design).together;
  const parts: FigureInput[] = [
    of('its own, cold', model.ownColdOhm, 'ohm', 'formula'),
    of(
      together ? 'the primary’s, referred, cold, twice' : 'the primary’s, referred, cold',
      (together ? 2 : 1) * model.sharedColdOhm,
      'ohm',
      'formula',
    ),
    of('copper', copperC, '°C', design.heat.together ? 'simulated' : 'chosen'),
  ];
  const law = 'R(T) = R20·(234.5 + T)/254.5 for copper.';
  const share =
    halves < 2
      ? []
      : together
        ? ['Both windings carry current at the same time: each sees what both take in the primary.']
        : ['Only one half carries current at a time; both share the primary.'];
  switch (source.kind) {
    case 'plate':
      return {
        expression: '(open-circuit − rated volts) / rated current; half of it is the primary’s',
        inputs: [of('rated current', model.ratedA, 'A', 'formula'), ...parts],
        source: law,
        assumes: ['The plate’s regulation holds for warm copper.', ...share],
      };
    case 'ohms':
      return {
        expression: 'secondary + primary × (open volts / mains)²',
        inputs: [
          of('secondary', source.secondaryOhm, 'ohm', 'measured'),
          of('primary', source.primaryOhm, 'ohm', 'measured'),
          ...parts,
        ],
        source: law,
        assumes: ['Read at 25 °C.', ...share],
      };
    case 'test':
      return {
        expression: '(open volts − volts on the resistor) / its current',
        inputs: [
          of('open', source.openV, 'V', 'measured'),
          of('loaded', source.loadedV, 'V', 'measured'),
          of('current', source.loadA, 'A', 'measured'),
          ...parts,
        ],
        source: law,
        assumes: ['Half of it is taken as the primary’s.', 'Read at 25 °C.', ...share],
      };
    case 'fitted':
      return {
        expression: 'own ohms + the share of what all windings have in common, fitted',
        inputs: parts,
        source: law,
        assumes: [`Fitted to your readings, ±${formatQuantity(source.ohmPct, '%', 2)}.`, ...share],
      };
    case 'wound':
      return {
        expression: '0.0172 Ω·mm²/m × length of the wire / its cross-section, both sides',
        inputs: parts,
        source: law,
        assumes: ['Mean turn from the bobbin, or pi times the ring’s own.', ...share],
      };
  }
}

/** The model a transformer makes, whichever way it is known: every number with its working. */
export function transformerFigures(design: Design): Figure[] {
  const { transformer, mains } = design;
  const model = modelOf(design);
  const halves = windingCount(design);
  const shares = arrangementFacts(design).together ? 2 : 1;
  const half = halves === 2 ? ', each half' : '';
  const open = openVoltsWorking(design);
  const copper = copperWorking(design);
  const figure = (
    id: string,
    label: string,
    value: number,
    unit: Unit,
    how: Pick<Figure, 'expression' | 'inputs' | 'source'> & Partial<Figure>,
  ): Figure => ({ id, label, value, unit, origin: 'formula', assumes: [], ...how });
  const primary = [of('rated', transformer.ratedVA, 'VA', 'chosen'), of('mains', mains.voltageRms, 'V', 'chosen')];
  const ring = transformer.core === 'toroid';
  const surge = inrush(transformer.ratedVA, mains.voltageRms, transformer.core);
  return [
    figure('model-open', `Open circuit${half}`, model.openCircuitV, 'V', { ...open, condition: 'nominal mains' }),
    figure('model-rated', `Rated current${half}`, model.ratedA, 'A', {
      expression: halves === 2 ? 'volt-amperes / (2 × volts of a half)' : 'volt-amperes / volts',
      inputs: [of('rated', transformer.ratedVA, 'VA', 'chosen'), of('rated volts', transformer.ratedV, 'V', 'chosen')],
      source: 'Nameplate.',
    }),
    figure('model-cold', `Copper, cold${half}`, model.ownColdOhm + shares * model.sharedColdOhm, 'ohm', {
      ...copper,
      condition: '20 °C: decides the first surge',
    }),
    figure('model-warm', `Copper, warm${half}`, model.ownHotOhm + shares * model.sharedHotOhm, 'ohm', {
      ...copper,
      condition: 'decides dropout and heat',
    }),
    figure('model-regulation', 'Regulation', 100 * model.regulation, '%', {
      origin: model.regulationKnown ? 'formula' : 'typical',
      expression: '(open − loaded volts) / loaded volts at rated current, warm',
      inputs: [of('open', model.openCircuitV, 'V', 'formula'), of('rated current', model.ratedA, 'A', 'formula')],
      source: 'What a nameplate would say.',
    }),
    figure(
      'model-magnetising',
      'Magnetising current',
      magnetising(transformer.ratedVA, mains.voltageRms, transformer.core),
      'A',
      {
        origin: 'rule of thumb',
        expression: `rated primary current × ${ring ? '1 to 3 %, its middle' : '5 to 15 %, its middle'}`,
        inputs: primary,
        source: ring ? 'Typical of ring cores.' : 'Typical of laminated cores.',
      },
    ),
    figure('model-inrush', 'Inrush, worst', surge.worstA, 'A', {
      origin: 'rule of thumb',
      condition: 'first half cycle, switched at zero crossing',
      expression: `rated primary current × ${ring ? '30 to 60' : '10 to 20'}, the higher`,
      inputs: [...primary, of('usual', surge.usualA, 'A', 'rule of thumb')],
      source: 'Limited by the mains and the primary’s own copper; residual flux decides.',
    }),
  ];
}
