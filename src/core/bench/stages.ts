import type { Design } from '@/core/design/design';
import { mainModel, outputsOf } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import type { PointId } from './test-point';

/** A light load is so much of the full one: enough to come down from the idle peak, too little to hurt anything. */
export const LIGHT = 0.1;

/** A stage of the power-up and the points read in it. */
export interface Stage {
  name: string;
  points: PointId[];
  /** Points worth reading that no stage waits for. */
  more: PointId[];
}

/** The stages of a design's power-up in the order of the circuit: what is read where, known before anything is solved. */
export function stagesOf(design: Design): Stage[] {
  const dc = dcSourceOf(design);
  const made = mainModel(design) !== null;
  const others = outputsOf(design)
    .filter((o) => o.id !== 'main')
    .map((o): PointId => (o.place < 0 ? 'output-minus' : `further-${o.place}`));
  const battery = dc?.kind === 'battery';
  const stage = (name: string, points: PointId[], more: PointId[] = []): Stage => ({ name, points, more });
  return [
    // At the mains itself nothing is waited for: nominal is taken, and the winding tells the rest. A DC source is read.
    dc ? stage('Before anything', ['mains']) : stage('Before anything', [], ['mains']),
    ...(dc ? [] : [stage('Transformer alone', ['secondary-open'])]),
    stage(dc ? 'Reservoir' : 'Rectifier and reservoir', ['reservoir-idle']),
    ...(made ? [stage('Regulator', ['output-idle'])] : []),
    stage('Light load', [], ['reservoir-light', ...(made ? (['output-light'] as const) : [])]),
    stage(
      'Full load',
      [
        'reservoir-loaded',
        // A battery has no ripple to read.
        ...(battery ? [] : ['reservoir-ripple' as const]),
        'output-loaded',
        ...others,
      ],
      ['load-current', ...(battery ? [] : (['ripple-meter'] as const))],
    ),
    ...(made ? [stage('After half an hour', ['sink-warm'])] : []),
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
    'reservoir-light': 'reservoir, light load',
    'output-light': 'output, light load',
    'reservoir-loaded': 'reservoir, full load',
    'reservoir-ripple': 'reservoir ripple, full load',
    'ripple-meter': 'reservoir ripple by the meter’s AC range',
    'load-current': 'load current, meter in series',
    'output-loaded': 'output, full load',
    'output-minus': 'minus output, full load',
    'sink-warm': bare ? 'regulator’s case, warm' : 'heatsink, warm',
  };
}
