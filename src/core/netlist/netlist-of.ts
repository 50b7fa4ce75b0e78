import { indicatorOhm } from '@/core/circuit/indicator';
import type { Design } from '@/core/design/design';
import { outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { arrangementOf, dcSourceOf } from '@/core/design/source';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal } from '@/core/quantity/format';
import { netlistBuilder, type NetlistBuilder } from './builder';
import { filterParts, type RailNets } from './filter-parts';
import { GROUND, type Netlist } from './netlist';
import { rectifierParts } from './rectifier-parts';
import { regulatorParts } from './regulator-parts';
import { sourceParts } from './source-parts';

/**
 * The parts a design is built from and what joins them, in the order of the street: source, rectifier, filters, then each
 * output with its regulator. Known from the document alone; what flows where a study says.
 */
export function netlistOf(design: Design): Netlist {
  const b = netlistBuilder();
  b.net(GROUND, 'ground');
  const ends = sourceParts(design, b);
  rectifierParts(design, ends, b);
  const { rails } = arrangementOf(design);
  const railNets = Array.from({ length: rails }, (_, r) => filterParts(design, r as 0 | 1, b));
  const outs = outputsOf(design).map((output) => ({ output, net: outputParts(design, output, railNets, b) }));
  indicator(design, railNets, outs[0]!.net, b);
  if (design.heat.fan !== 'none' && design.heat.fanA !== null)
    b.add(
      {
        kind: 'fan',
        value: formatNominal(design.heat.fanA, 'A'),
        what: 'cools the sink',
        pins: { plus: railNets[0]!.end, minus: GROUND },
        line: 'fan',
      },
      { block: 'filter', rail: 0 },
    );
  const end = [...ends.values()].find((net) => net !== GROUND)!;
  const tests = [
    ...(dcSourceOf(design) ? [{ net: end, points: ['mains'] }] : [{ net: end, points: ['secondary-open'] }]),
    {
      net: railNets[0]!.reservoir,
      points: ['reservoir-idle', 'reservoir-light', 'reservoir-loaded', 'reservoir-ripple', 'ripple-meter'],
    },
    ...outs.map(({ output, net }) => ({
      net,
      points:
        output.id === 'main'
          ? ['output-idle', 'output-light', 'output-loaded']
          : [output.place < 0 ? 'output-minus' : `further-${output.place}`],
    })),
  ];
  // Of a supply without a regulator reservoir and output may be one net: one point then.
  const joined = new Map<string, string[]>();
  for (const { net, points } of tests) joined.set(net, [...(joined.get(net) ?? []), ...points]);
  return {
    parts: b.parts,
    nets: [...b.nets.values()],
    tests: [...joined].map(([net, points], n) => ({ ref: `TP${n + 1}`, net, points })),
  };
}

/** A regulator with what stands ahead of it, and the terminal it ends in. @returns the output's net */
function outputParts(design: Design, output: Output, rails: readonly RailNets[], b: NetlistBuilder): string {
  const { end } = rails[output.rail]!;
  const made = outputModel(output);
  const main = output.place < 0;
  const place = { rail: output.rail, output: output.id };
  const net = made ? b.named(output.name, 'output', output.rail) : end;
  if (made) {
    const line = main ? 'regulator' : output.id;
    let from = end;
    const ahead = main ? aheadModel(design.preRegulator) : null;
    if (ahead) {
      const held = b.net(`held ${output.rail === 1 ? '−' : '+'}`, 'rail', output.rail);
      const io = { in: end, out: held, follows: net };
      regulatorParts(ahead.wired, io, `ahead of ${net},`, 'ahead', { ...place, block: 'ahead' }, b);
      from = held;
    }
    regulatorParts(made.wired, { in: from, out: net }, `${net},`, line, { ...place, block: 'regulator' }, b);
  }
  b.add(
    {
      kind: 'terminal',
      value: output.name,
      rating: formatNominal(output.demand.outputA, 'A'),
      what: 'output',
      pins: output.rail === 1 ? { minus: net, '0 V': GROUND } : { plus: net, '0 V': GROUND },
      line: `terminal-${output.id}`,
    },
    { ...place, block: 'output' },
  );
  return net;
}

/** @param output the net of the main output */
function indicator(design: Design, rails: readonly RailNets[], output: string, b: NetlistBuilder): void {
  const lamp = design.indicator;
  if (!lamp) return;
  const main = outputsOf(design)[0]!;
  const atOutput = lamp.at === 'output' && outputModel(main) !== null;
  const ohm = Number(indicatorOhm(design)!.toPrecision(3));
  const place = { block: atOutput ? 'output' : 'filter', rail: 0, output: atOutput ? main.id : null } as const;
  const from = atOutput ? output : rails[0]!.end;
  const between = 'indicator';
  b.add(
    {
      kind: 'resistor',
      value: formatNominal(ohm, 'ohm'),
      what: 'sets the indicator’s current',
      pins: { a: from, b: between },
      line: 'indicator-resistor',
      si: { value: ohm, unit: 'ohm' },
    },
    place,
  );
  b.add(
    {
      kind: 'led',
      value: formatNominal(lamp.currentA, 'A'),
      what: 'says that it is on',
      pins: { anode: between, cathode: GROUND },
      line: 'indicator',
    },
    place,
  );
}
