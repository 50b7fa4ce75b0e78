import type { Design } from '@/core/design/design';
import { mainModel, outputsOf } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import type { PointId } from './test-point';

/** A stage of the power-up and the points read in it. */
export interface Stage {
  name: string;
  points: PointId[];
}

/** The stages of a design's power-up in the order of the circuit: what is read where, known before anything is solved. */
export function stagesOf(design: Design): Stage[] {
  const dc = dcSourceOf(design);
  const made = mainModel(design) !== null;
  const others = outputsOf(design)
    .filter((o) => o.id !== 'main')
    .map((o): PointId => (o.place < 0 ? 'output-minus' : `further-${o.place}`));
  return [
    { name: 'Before anything', points: ['mains'] },
    ...(dc ? [] : [{ name: 'Transformer alone', points: ['secondary-open' as const] }]),
    { name: dc ? 'Reservoir' : 'Rectifier and reservoir', points: ['reservoir-idle'] },
    ...(made ? [{ name: 'Regulator', points: ['output-idle' as const] }] : []),
    {
      name: 'Full load',
      points: [
        'reservoir-loaded',
        // A battery has no ripple to read.
        ...(dc?.kind === 'battery' ? [] : ['reservoir-ripple' as const]),
        'output-loaded',
        ...others,
      ],
    },
    ...(made ? [{ name: 'After half an hour', points: ['sink-warm' as const] }] : []),
  ];
}

/** Short names of the points as a list of readings says them. */
export function pointNames(design: Design): Readonly<Record<string, string>> {
  const bare = design.heat.sinkKPerW === null;
  return {
    mains: 'mains',
    'secondary-open': 'winding, open',
    'reservoir-idle': 'reservoir, no load',
    'output-idle': 'output, no load',
    'reservoir-loaded': 'reservoir, full load',
    'reservoir-ripple': 'reservoir ripple, full load',
    'output-loaded': 'output, full load',
    'output-minus': 'minus output, full load',
    'sink-warm': bare ? 'regulator’s case, warm' : 'heatsink, warm',
  };
}
