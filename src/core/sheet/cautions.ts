import { mainModel } from '@/core/design/outputs';
import type { Design } from '@/core/design/design';

/** The cautions every printed sheet carries, short, in the order of danger. */
export function cautions(design: Design, hazardWords: string | null, sinkC: number | null): string[] {
  const onSink = design.heat.sinkKPerW !== null && (mainModel(design)?.pass.takesSink ?? false);
  const lines = design.source.kind === 'mains' ? mainsCautions() : dcCautions(design.source.kind);
  if (hazardWords) lines.unshift(hazardWords);
  if (sinkC !== null && sinkC > 60)
    lines.push(`The ${onSink ? 'heatsink' : 'regulator'} reaches about ${Math.round(sinkC)} °C: guard or label it.`);
  if (design.regulator.kind === 'none')
    lines.push('The output is not regulated and has no current limit of its own: fit a secondary fuse.');
  return lines;
}

function mainsCautions(): string[] {
  return [
    'Mains and stored energy can kill. This sheet informs, it certifies nothing: local electrical codes and a licensed electrician or qualified engineer decide.',
    'Pull the plug before touching. Measure before touching. Discharge the reservoir through a resistor, then check it with a meter; electrolytics recover some charge.',
    'Protective earth on all exposed metal with its own screw; time-lag primary fuse, rated switch, strain relief, nothing live within reach, 8 mm between mains and low volts.',
    'One hand, never alone where more than 60 V DC can stand. Eye protection at first power: electrolytics the wrong way round explode.',
  ];
}

function dcCautions(kind: 'battery' | 'adapter'): string[] {
  return [
    'This sheet informs, it certifies nothing: local electrical codes and a licensed electrician or qualified engineer decide.',
    kind === 'battery'
      ? 'A battery drives whatever its resistance allows into a short: fuse close to its terminal, terminals covered, rings and spanners away.'
      : 'A bought, approved adapter only: the mains stays inside it. Check DC and polarity with a meter before the first plug.',
    'Unplug before touching. Discharge the reservoir through a resistor, then check it with a meter; electrolytics recover some charge.',
    'Eye protection at first power: electrolytics the wrong way round explode.',
  ];
}
