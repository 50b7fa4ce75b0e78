import type { Design } from '@/core/design/design';
import { mainModel, outputModel, outputName } from '@/core/design/outputs';
import { isSplit } from '@/core/design/words';
import { thermalInterface, type Interface } from '@/core/parts/heatsink';
import type { PassDevice } from '@/core/parts/regulators/model';
import { once } from '@/core/quantity/once';

/** One resistance of a chain, K/W, with the temperature on its warm side. */
export interface Link {
  label: string;
  kPerW: number;
}

export interface RegulatorHeat {
  junctionC: number;
  /** Temperature of the sink's metal, or of the bare case, and of the device's own case on it. */
  sinkC: number;
  caseC: number;
  /** Air the sink or the bare part stands in. */
  airC: number;
  thetaTotalKPerW: number;
  /** Its own resistances, junction outward; the sink's is the last of them where nobody else has found its metal. */
  chain: Link[];
  /** The sink it is on, with everything that goes through it; null in free air. */
  sink: (Link & { watts: number }) | null;
}

/** Rise at which heatsinks are quoted; natural convection carries more the hotter the metal, with the fourth root. */
const QUOTED_RISE_K = 60;
const LEAST_RISE_K = 10;
/** What a fan leaves of a sink's resistance: 0.3 to 0.5, its middle. */
const FAN_FACTOR = 0.4;
/** Heat through the faces of a box, W/m2K: painted metal, plastic. */
const FACE_W_PER_M2K = { metal: 5.5, plastic: 3.75 } as const;
/** Vents about halve the rise. */
const VENT_FACTOR = 0.5;

/** Air inside the box above the room, K/W; nothing in an open frame. */
export function boxKPerW({ heat, mainsSide }: Design): number {
  if (heat.box === 'open') return 0;
  const closed = 1 / (FACE_W_PER_M2K[mainsSide.box] * heat.boxCm2 * 1e-4);
  return heat.box === 'vented' ? VENT_FACTOR * closed : closed;
}

/** Air inside, °C, with so many watts given off in the box. */
export function insideAir(design: Design, watts: number): number {
  return design.heat.ambientC + watts * boxKPerW(design);
}

/**
 * A sink's rise above its air, K, and its resistance at that rise: R = R60*(60/rise)^(1/4) by natural convection, found
 * in closed form; a fan cuts it to 0.4 of its quoted value whatever the rise.
 */
export function sinkRise(quotedKPerW: number, watts: number, fan: boolean): { riseK: number; kPerW: number } {
  if (watts <= 0) return { riseK: 0, kPerW: fan ? FAN_FACTOR * quotedKPerW : quotedKPerW };
  if (fan) return { riseK: watts * FAN_FACTOR * quotedKPerW, kPerW: FAN_FACTOR * quotedKPerW };
  // rise = watts * R60 * (60/rise)^(1/4)  =>  rise = (watts * R60 * 60^(1/4))^(4/5)
  const free = (watts * quotedKPerW * QUOTED_RISE_K ** 0.25) ** 0.8;
  const most = quotedKPerW * (QUOTED_RISE_K / LEAST_RISE_K) ** 0.25;
  const riseK = Math.min(free, watts * most);
  return { riseK, kPerW: riseK / watts };
}

/** What a regulator and what shares its sink give off, W. */
export interface SinkLoad {
  regulatorW: number;
  /** Rectifier on the same sink. */
  othersW: number;
  /** Everything given off inside the box, the regulator included. */
  boxW: number;
}

/** Whether a fan that is switched by temperature has started: it does when the sink without it would be hotter. */
function fanRuns(design: Design, stillC: number): boolean {
  const { fan, fanOnC } = design.heat;
  return fan === 'fixed' || (fan === 'switched' && stillC > fanOnC);
}

/** A device with metal, and the sink it is screwed to. */
export interface Mounted {
  pass: Pick<PassDevice, 'takesSink' | 'count' | 'jcKPerW' | 'jaKPerW'>;
  /** Null for none. */
  sinkKPerW: number | null;
  /** Whether the fan blows on that sink. */
  blown: boolean;
}

/** How what lies between a case and its sink is called, worked out once: a search asks for it ten thousand times. */
const caseToSink = once(({ name }: Interface) => `case to sink (${name.toLowerCase()})`);

/**
 * Steady temperatures of one regulator: air of the room, of the box, sink (shared or not), case, junction. Several devices
 * share the watts. Natural convection, or the fan's.
 */
export function regulatorHeat(design: Design, { pass, sinkKPerW, blown }: Mounted, load: SinkLoad): RegulatorHeat {
  const { heat } = design;
  const each = load.regulatorW / pass.count;
  if (!pass.takesSink || sinkKPerW === null) {
    const airC = insideAir(design, load.boxW);
    return {
      junctionC: airC + each * pass.jaKPerW,
      sinkC: airC + each * Math.max(pass.jaKPerW - pass.jcKPerW, 0),
      caseC: airC + each * Math.max(pass.jaKPerW - pass.jcKPerW, 0),
      airC,
      thetaTotalKPerW: pass.jaKPerW / pass.count,
      chain: [{ label: 'junction to free air', kPerW: pass.jaKPerW / pass.count }],
      sink: null,
    };
  }
  const onSinkW = load.regulatorW + load.othersW;
  const outside = heat.sinkOutside && heat.box !== 'open';
  const airC = outside ? heat.ambientC : insideAir(design, load.boxW);
  const still = sinkRise(sinkKPerW, onSinkW, false);
  const sink = blown && fanRuns(design, airC + still.riseK) ? sinkRise(sinkKPerW, onSinkW, true) : still;
  const contact = thermalInterface(heat.interface);
  const sinkC = airC + sink.riseK;
  const toAir = { label: sink === still ? 'sink to air, at this rise' : 'sink to air, fan running', kPerW: sink.kPerW };
  return {
    junctionC: sinkC + each * (pass.jcKPerW + contact.kPerW),
    sinkC,
    caseC: sinkC + each * contact.kPerW,
    airC,
    thetaTotalKPerW: (pass.jcKPerW + contact.kPerW) / pass.count + sink.kPerW,
    chain: [
      { label: 'junction to case', kPerW: pass.jcKPerW / pass.count },
      { label: caseToSink(contact), kPerW: contact.kPerW / pass.count },
      toAir,
    ],
    sink: { ...toAir, watts: onSinkW },
  };
}

/** A device on a sink whose metal another computation has found: that of the main regulator, shared by all. */
export function onSharedSink(design: Design, pass: Mounted['pass'], watts: number, main: RegulatorHeat): RegulatorHeat {
  const contact = thermalInterface(design.heat.interface);
  const kPerW = (pass.jcKPerW + contact.kPerW) / pass.count;
  return {
    ...main,
    junctionC: main.sinkC + watts * kPerW,
    caseC: main.sinkC + (watts * contact.kPerW) / pass.count,
    thetaTotalKPerW: kPerW,
    chain: [
      { label: 'junction to case', kPerW: pass.jcKPerW / pass.count },
      { label: `case to the shared sink (${contact.name.toLowerCase()})`, kPerW: contact.kPerW / pass.count },
    ],
  };
}

/** A piece of metal on a sink, and where it lies. */
export interface Tab {
  name: string;
  /** The potential of its metal, in words. */
  at: string;
  grounded: boolean;
}

/** What lies on the main sink, and at which potentials. The negative twin of a fixed regulator has its input on the tab. */
export function tabsOnSink(design: Design): Tab[] {
  const model = mainModel(design);
  if (!model?.pass.takesSink || design.heat.sinkKPerW === null) return [];
  const tab = (name: string, { tab: lead }: PassDevice): Tab => ({
    name,
    at: lead === 'ground' ? 'ground' : `its ${lead}`,
    grounded: lead === 'ground',
  });
  const tabs = [tab('Regulator', model.pass)];
  if (!design.heat.oneSink) return tabs;
  if (isSplit(design)) {
    tabs.push(
      design.regulator.kind === 'fixed' || design.regulator.kind === 'adjustable'
        ? { name: 'Negative regulator', at: 'its input', grounded: false }
        : tab('Negative regulator', model.pass),
    );
  }
  design.outputs.forEach((o, n) => {
    const pass = outputModel(o)?.pass;
    if (pass?.takesSink) tabs.push(tab(outputName(o, n), pass));
  });
  return tabs;
}

/** What has to be done about the metal on the main sink; null where all of it lies at ground. */
export function insulationAdvice(design: Design): string | null {
  const tabs = tabsOnSink(design);
  const live = tabs.filter((t) => !t.grounded);
  if (live.length === 0) return null;
  const which = live.map((t) => `${t.name}: its metal is at ${t.at}`).join('; ');
  const insulated = design.heat.interface === 'mica' || design.heat.interface === 'pad';
  return `${which}. ${
    insulated
      ? 'Insulated by the washers chosen here; check with a meter before power.'
      : tabs.length > 1
        ? 'Bare on one sink they short each other: mica or pads under these, which cost a few kelvins.'
        : 'Bare on a sink, the sink lies at that potential: insulate it with mica or a pad, or keep the sink from touching anything.'
  }`;
}
