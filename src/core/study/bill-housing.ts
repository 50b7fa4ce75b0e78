import { heatersOf } from '@/core/design/heaters';
import { outputsOf } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import { thermalInterface } from '@/core/parts/heatsink';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { SMALL_EUR, insulators, typicalBoxPrice, secondaryFuses, typicalHeaterPrice } from './cost';
import { chosen, need } from './bill-need';
import { type Figure } from './figure';
import type { BillWriter } from './bill-writer';

/** What it is built into and joined by: washers, fan, heater windings, fuses, switch, terminals, box. */
export function housingLines(writer: BillWriter): void {
  const { study, add, refs } = writer;
  const { design } = study;
  const { transformer, heat, mainsSide } = design;
  const dc = dcSourceOf(design);
  if (insulators(design) > 0) {
    add(null, {
      references: '',
      what: `${thermalInterface(heat.interface).name}, with bushes`,
      count: insulators(design),
      needed: 'one under each device',
      had: 'as bought',
      priceEur: SMALL_EUR.insulator,
    });
  }
  if (heat.fan !== 'none') {
    add(null, {
      references: refs('fan'),
      what: heat.fan === 'switched' ? `Fan, switched on at ${formatNominal(heat.fanOnC, '°C')}` : 'Fan',
      count: 1,
      needed: 'over the sink',
      had: heat.fanA === null ? 'fed from elsewhere' : formatQuantity(heat.fanA, 'A'),
      priceEur: SMALL_EUR.fan,
    });
  }
  heatersOf(design).forEach((heater, n) => {
    const own = n >= (design.heater ? 1 : 0);
    add(null, {
      references: 'T1',
      what: `Heater winding ${formatNominal(heater.ratedV, 'V')}, on the same core${own ? ', for the rectifier alone: it stands at the high volts' : ''}`,
      count: 1,
      needed: [need('Current', chosen(heater.currentA, 'Your heaters.'), 'A', 'what the heaters draw')],
      had: formatNominal(heater.currentA, 'A'),
      priceEur: typicalHeaterPrice(heater),
    });
  });
  if (mainsSide.primaryFuseA !== null && !dc) {
    add(null, {
      references: refs('primary-fuse'),
      what: `Fuse, time-lag ${formatNominal(mainsSide.primaryFuseA, 'A')} with holder`,
      count: 1,
      needed: 'see Mains side',
      had: `${formatNominal(mainsSide.primaryFuseA, 'A')}, 250 V`,
      priceEur: SMALL_EUR.primaryFuse,
    });
  }
  if (mainsSide.secondaryFuseA !== null) {
    const count = secondaryFuses(design);
    add(null, {
      references: refs('secondary-fuse'),
      what: `Fuse ${formatNominal(mainsSide.secondaryFuseA, 'A')} with holder, ${dc ? 'in the lead' : 'at the winding'}`,
      count,
      needed: 'see Mains side',
      had: formatNominal(mainsSide.secondaryFuseA, 'A'),
      priceEur: SMALL_EUR.secondaryFuse,
    });
  }
  const panel = (
    line: string,
    what: string,
    count: number,
    needed: string | readonly Figure[],
    had: string,
    priceEur: number,
  ) => add(null, { references: refs(line), what, count, needed, had, priceEur });
  const mains = `${formatNominal(design.mains.voltageRms, 'V')} mains`;
  // A bought adapter's or a battery's lead comes in by a jack; its line is the source's, and the jack has no name of its own.
  if (dc || transformer.sealed)
    add(null, {
      references: '',
      what: 'Jack for the lead',
      count: 1,
      needed: 'what the source gives',
      had: 'as bought',
      priceEur: SMALL_EUR.jack,
    });
  else {
    const poles = mainsSide.switchPoles;
    panel('inlet', 'Mains inlet', 1, mains, '250 V', SMALL_EUR.inlet);
    panel(
      'switch',
      `Mains switch, ${poles === 2 ? 'two poles' : 'one pole'}`,
      1,
      mains,
      '250 V',
      SMALL_EUR.switch[poles],
    );
    if (mainsSide.thermalCutout)
      panel('cutout', 'Thermal cut-out', 1, `${mains}, at the winding`, '250 V', SMALL_EUR.cutout);
  }
  for (const { id, name, demand } of outputsOf(design))
    panel(
      `terminal-${id}`,
      `Binding post, for ${name}`,
      2,
      [need('Current', chosen(demand.outputA, 'Your load.'), 'A', 'what its load draws')],
      'as bought',
      SMALL_EUR.post,
    );
  const { inside } = design.build.box;
  if (inside)
    add(null, {
      references: '',
      what: `Box, ${inside.wMm} × ${inside.dMm} × ${inside.hMm} mm inside`,
      count: 1,
      needed: 'everything in it',
      had: design.mainsSide.box,
      priceEur: typicalBoxPrice(inside),
    });
}
