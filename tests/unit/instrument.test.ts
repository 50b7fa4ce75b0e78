import net from 'node:net';
import { hide, SimulatedBuild, type Hidden } from '@/core/bench/simulated-build';
import { errorIn, numberIn, numbersIn, switchIn } from '@/core/instrument/answers';
import { asksOf, commandFault, INSTRUMENT_KINDS, lineFor } from '@/core/instrument/commands';
import { StandIns } from '@/core/instrument/stand-in';
import { planFault, runSweep, type SweepBench, type SweepPlan } from '@/core/instrument/sweep';
import { applyPatch, type LoadRow } from '@/core/design/design';
import { Conversation } from '@/server/instruments/conversation';
import { addressFault } from '@/server/instruments/address';
import { Line, LineFault, type Said } from '@/server/instruments/line';
import { readPlan } from '@/server/instruments/plan';
import { readInstrument } from '@/server/instruments/store';
import { serveStandIns } from '@/server/instruments/serve-stand-ins';
import { clock, dome } from '../support/demos';

describe('answers', () => {
  test.each([
    ['1.25', 1.25],
    ['+2.5E-3', 0.0025],
    [' -.5\r', -0.5],
    ['3.', 3],
  ])('%p is a number', (text, value) => expect(numberIn(text)).toEqual({ ok: true, value }));
  test.each(['', '1,25', '12 V', 'NaN', '0x10', '1e999', 'ERROR 3'])('%p is none, and is quoted', (text) => {
    const read = numberIn(text);
    expect(read.ok).toBe(false);
    expect(read.ok ? '' : read.fault).toMatch(text === '1e999' ? /beyond its range/ : new RegExp(`‘${text}’`));
  });
  test('an overload is no reading', () => {
    expect(numberIn('9.9E37')).toEqual({ ok: false, fault: 'It answered that the reading is beyond its range.' });
    expect(numberIn('-9.91E+37').ok).toBe(false);
    expect(numberIn('9.8E36').ok).toBe(true);
  });
  test('a trace is all numbers or none', () => {
    expect(numbersIn('1,2,3,4,5,6,7,8')).toEqual({ ok: true, value: [1, 2, 3, 4, 5, 6, 7, 8] });
    const bad = numbersIn('1,2,3,4,5,6,7,x');
    expect(bad.ok ? '' : bad.fault).toContain('Point 8');
    expect(numbersIn('1,2,3').ok).toBe(false);
    expect(numbersIn(Array(20_001).fill('1').join(',')).ok).toBe(false);
  });
  test('on, off and neither; an empty queue of errors and a full one', () => {
    expect(switchIn('ON')).toEqual({ ok: true, value: true });
    expect(switchIn('0')).toEqual({ ok: true, value: false });
    expect(switchIn('2').ok).toBe(false);
    expect(errorIn('+0,"No error"')).toBeNull();
    expect(errorIn('-113,"Undefined header"')).toBe('-113,"Undefined header"');
  });
});

describe('the table of commands', () => {
  test('its usual lines are all allowed', () => {
    for (const kind of INSTRUMENT_KINDS)
      for (const [ask, { usual }] of asksOf(kind)) expect([ask, commandFault(kind, ask, usual)]).toEqual([ask, null]);
  });
  test('a number goes where it belongs, and a make’s own words in place of the usual ones', () => {
    expect(lineFor('load', 'amps', {}, 1.5)).toBe('CURR 1.5');
    expect(lineFor('load', 'amps', { amps: 'ISET={value};' }, 0.1 + 0.2)).toBe('ISET=0.3;');
    expect(lineFor('load', 'off', { off: 'LOAD 0' })).toBe('LOAD 0');
  });
  test.each([
    ['amps', 'CURR 1', '{value} has to stand'],
    ['off', 'INP OFF?', 'no question'],
    ['volts', 'MEAS:VOLT', 'has to be a question'],
    ['off', 'INP {value}', 'cannot stand in it'],
    ['off', 'INP OFF\nINP ON', 'one line'],
    ['off', '', 'one line'],
    ['off', 'x'.repeat(201), 'at most 200'],
    ['error', 'SYST:ERR', 'has to be a question'],
    ['smoke', 'SMOK', 'Nothing called'],
  ])('%s as %p is refused', (ask, line, words) => expect(commandFault('load', ask, line)).toContain(words));
});

describe('addresses', () => {
  test.each([
    '127.0.0.1',
    '10.9.8.7',
    '172.16.0.1',
    '172.31.255.1',
    '192.168.1.40',
    '169.254.3.3',
    '::1',
    'fe80::1',
    'fd00::1',
  ])('%s is inside the house', (host) => expect(addressFault({ host, port: 5025 })).toBeNull());
  test.each(['8.8.8.8', '172.32.0.1', '192.169.0.1', '11.0.0.1', '2001:db8::1', '::ffff:8.8.8.8'])(
    '%s is not',
    (host) => expect(addressFault({ host, port: 5025 })).toContain('outside this house'),
  );
  test.each(['localhost', 'meter.example', '127.1', '', '127.0.0.1:80'])('%p is no address', (host) =>
    expect(addressFault({ host, port: 5025 })).toContain('no address'),
  );
  test.each([0, 65536, 1.5, NaN])('%p is no port', (port) =>
    expect(addressFault({ host: '127.0.0.1', port })).toContain('port'),
  );
  test('nothing is gone to before it is confirmed', () => {
    const read = (body: object) => {
      const found = readInstrument('load', body);
      return found.ok ? 'taken' : `${found.fault.path}: ${found.fault.sentence}`;
    };
    const good = { host: '127.0.0.1', port: 5025, commands: {}, confirmed: true };
    expect(read(good)).toBe('taken');
    expect(read({ ...good, confirmed: false })).toContain('confirmed');
    expect(read({ ...good, host: '1.1.1.1' })).toContain('host: 1.1.1.1 lies outside');
    expect(read({ ...good, commands: { off: 'INP OFF?' } })).toContain('commands.off');
    expect(read({ ...good, secret: 1 })).toContain('secret');
  });
});

/** The dome's supply exactly as designed. */
const asDesigned: Hidden = { seed: 4, factors: {}, setV: null, fault: 'none', entry: null, part: '', severity: [] };

function stood(design = dome, hidden = asDesigned, speed = 1) {
  let now = 0;
  const standIns = new StandIns(new SimulatedBuild(design, hidden), 230, () => now, speed);
  const ask = (kind: Parameters<StandIns['answer']>[0], line: string) => standIns.answer(kind, line);
  return {
    ask,
    number: (kind: Parameters<StandIns['answer']>[0], line: string) => Number(ask(kind, line)),
    pass: (s: number) => (now += s),
  };
}

describe('stand-ins', () => {
  test('every one of them says that it is simulated', () => {
    const { ask } = stood();
    for (const kind of INSTRUMENT_KINDS) expect(ask(kind, '*IDN?')).toContain('SIMULATED');
  });

  test('read what the design comes to, within the meter they play', () => {
    const { ask, number } = stood();
    ask('meter', 'SIM:PROB WINDING');
    // 25.5 V of plate and 6.5 % of regulation: 27.2 V open, near what the turns say.
    expect(number('meter', 'MEAS:VOLT:AC?')).toBeGreaterThan(26.9);
    expect(number('meter', 'MEAS:VOLT:AC?')).toBeLessThan(28.4);
    ask('meter', 'SIM:PROB RESERVOIR');
    const idleV = number('meter', 'MEAS:VOLT:DC?');
    ask('load', 'FUNC CURR');
    ask('load', 'CURR 4');
    ask('load', 'INP ON');
    expect(ask('load', 'INP?')).toBe('1');
    expect(number('load', 'MEAS:CURR?')).toBeCloseTo(4, 1);
    const loadedV = number('meter', 'MEAS:VOLT:DC?');
    expect(idleV - loadedV).toBeGreaterThan(4);
    expect(Math.abs(loadedV - number('load', 'MEAS:VOLT?'))).toBeLessThan(0.4);
    ask('load', '*RST');
    expect(ask('load', 'INP?')).toBe('0');
    expect(number('meter', 'MEAS:VOLT:DC?')).toBeCloseTo(idleV, 0);
  });

  test('a meter on amps stands in series and takes its burden from the load, until it reads volts again', () => {
    const { ask, number } = stood(applyPatch(dome, { bench: { burdenV: 1.5 } }));
    ask('load', 'CURR 2');
    ask('load', 'INP ON');
    const before = number('load', 'MEAS:VOLT?');
    expect(number('meter', 'MEAS:CURR:DC?')).toBeCloseTo(2, 1);
    expect(before - number('load', 'MEAS:VOLT?')).toBeCloseTo(1.5, 0);
    expect(before - number('load', 'MEAS:VOLT?')).toBeGreaterThan(1);
    number('meter', 'MEAS:VOLT:DC?');
    expect(Math.abs(before - number('load', 'MEAS:VOLT?'))).toBeLessThan(0.4);
  });

  test('long words are the same as short ones, in any case', () => {
    const { ask, number } = stood();
    expect(number('meter', ':measure:voltage:dc?')).toBeGreaterThan(30);
    ask('load', 'CURRENT 2');
    ask('load', 'Input On');
    expect(number('load', 'CURR?')).toBe(2);
    expect(ask('load', 'INPut?')).toBe('1');
    ask('scope', 'TIMebase:SCALe 0.01');
    expect(ask('scope', 'SYSTem:ERRor?')).toBe('0,"No error"');
    expect(number('scope', 'TIM:SCAL?')).toBe(0.01);
  });

  test('ohms are read of what has no power on it, and nothing else then', () => {
    const { ask, number } = stood();
    expect(ask('meter', 'MEAS:RES?')).toBe('9.9E37');
    ask('source', 'OUTP OFF');
    // 62 turns of 2 mm on 236 mm a turn: 14.6 m of 5.5 mΩ/m, and the rest is the meter's.
    expect(number('meter', 'MEAS:RES?')).toBeGreaterThan(0.06);
    expect(number('meter', 'MEAS:RES?')).toBeLessThan(0.11);
    expect(Math.abs(number('meter', 'MEAS:VOLT:DC?'))).toBeLessThan(0.05);
  });

  test('a trace holds the ripple of the load that hangs on it, over its floor', () => {
    const { ask } = stood();
    const swing = () => {
      const values = ask('scope', 'WAV:DATA?')!.split(',').map(Number);
      return Math.max(...values) - Math.min(...values);
    };
    expect(swing()).toBeLessThan(0.03);
    ask('load', 'CURR 4');
    ask('load', 'INP ON');
    // I·t/C of 4 A over the 10 ms less the charging time, on the demo's reservoir: 1.4 to 1.7 V by its own readings.
    expect(swing()).toBeGreaterThan(1.2);
    expect(swing()).toBeLessThan(1.8);
    expect(Number(ask('scope', 'WAV:XINC?')) * 500).toBeCloseTo(0.05, 6);
  });

  test('the AC range shows what swings about the mean, as the meter at hand reads it', () => {
    const ac = (acTrueRms: boolean) => {
      const { ask, number } = stood({ ...dome, bench: { ...dome.bench, acTrueRms, meterPct: 0, meterDigitsV: 0 } });
      ask('meter', 'SIM:PROB RESERVOIR');
      ask('load', 'CURR 4');
      ask('load', 'INP ON');
      return number('meter', 'MEAS:VOLT:AC?');
    };
    // Near 1.5 V peak to peak of something like a sawtooth: 0.43 V RMS, a little less as a mean.
    expect(ac(true)).toBeGreaterThan(0.36);
    expect(ac(true)).toBeLessThan(0.5);
    expect(ac(false) / ac(true)).toBeGreaterThan(0.95);
    expect(ac(false) / ac(true)).toBeLessThan(0.995);
  });

  test('copper and metal warm while they are loaded: volts fall, degrees rise, and both only so far', () => {
    const warm = stood(clock, { ...asDesigned, setV: 24 }, 60);
    warm.ask('load', 'CURR 1.2');
    warm.ask('load', 'INP ON');
    const read = (line: string) => {
      const many = Array.from({ length: 40 }, () => warm.number('meter', line));
      return many.reduce((a, b) => a + b, 0) / many.length;
    };
    warm.ask('meter', 'SIM:PROB RESERVOIR');
    const [coldV, coldC] = [read('MEAS:VOLT:DC?'), read('MEAS:TEMP?')];
    warm.pass(5);
    const halfC = read('MEAS:TEMP?');
    warm.pass(600);
    const [warmV, warmC] = [read('MEAS:VOLT:DC?'), read('MEAS:TEMP?')];
    expect(coldV - warmV).toBeGreaterThan(0.1);
    expect(coldC).toBeCloseTo(35, 0);
    expect(halfC).toBeGreaterThan(coldC + 3);
    expect(warmC).toBeGreaterThan(halfC + 3);
    warm.pass(6000);
    expect(read('MEAS:TEMP?')).toBeCloseTo(warmC, 0);
  });

  test('what is not understood stands in the queue of errors, and is not answered with a number', () => {
    const { ask } = stood();
    expect(ask('load', 'CURR 1e9')).toBeNull();
    expect(ask('load', 'SYST:ERR?')).toContain('-113');
    expect(ask('load', 'SYST:ERR?')).toBe('0,"No error"');
    expect(ask('meter', 'MEAS:LUCK?')).toBe('');
    // The dome's supply has no sink to lay a thermometer on.
    expect(ask('meter', 'MEAS:TEMP?')).toBe('9.9E37');
    expect(ask('meter', '*CLS')).toBeNull();
    expect(ask('meter', 'SYST:ERR?')).toBe('0,"No error"');
  });

  test('a seed is always the same build, another one another', () => {
    expect(hide(clock, 7)).toEqual(hide(clock, 7));
    // A supply without that part cannot have lost it: it is sound, and so it says.
    const sound = hide(clock, 7, 'winding-open');
    expect([sound.fault, sound.part, sound.severity]).toEqual(['none', '', []]);
    expect(sound.factors).toEqual(hide(clock, 7).factors);
    expect(hide(clock, 7).factors).not.toEqual(hide(clock, 8).factors);
    const broken = hide(clock, 7, 'diode-open');
    expect(broken.fault).toBe('diode-open');
    expect(broken.part).toMatch(/^diode [0-3]$/);
  });

  test('an open diode halves the pulses, a dead regulator leaves nothing', () => {
    const open = stood(clock, hide(clock, 7, 'diode-open'));
    open.ask('load', 'CURR 1.2');
    open.ask('load', 'INP ON');
    const values = open.ask('scope', 'WAV:DATA?')!.split(',').map(Number);
    const sound = stood(clock, hide(clock, 7));
    sound.ask('load', 'CURR 1.2');
    sound.ask('load', 'INP ON');
    const whole = sound.ask('scope', 'WAV:DATA?')!.split(',').map(Number);
    const swing = (v: number[]) => Math.max(...v) - Math.min(...v);
    expect(swing(values) / swing(whole)).toBeGreaterThan(1.8);
    const dead = stood(clock, hide(clock, 7, 'output-dead'));
    expect(Math.abs(dead.number('meter', 'MEAS:VOLT:DC?'))).toBeLessThan(0.1);
  });
});

const plan: SweepPlan = {
  amps: [0, 1, 2],
  settleS: 4,
  sourceV: 230,
  meterOn: 'reservoir',
  limits: { leastV: 5, mostA: 3, mostW: 60, mostC: 70, mostMinutes: 5 },
};

/** A bench of 20 V with 1 Ω behind it, that notes what it was told. */
function benchOf(more: Partial<SweepBench> = {}) {
  const told: string[] = [];
  let amps = 0;
  let seconds = 0;
  const bench: SweepBench = {
    loadAmps: async (a) => void (told.push(`${a} A`), (amps = a)),
    loadOn: async () => void told.push('on'),
    loadOff: async () => void told.push('off'),
    loadReads: async () => ({ volts: 20 - amps, amps }),
    meterV: async () => 25 - amps,
    rippleV: async () => 0.3 * amps,
    metalC: async () => 30 + 10 * amps,
    sourceV: null,
    wait: async (s) => void (seconds += s),
    now: () => new Date(1e12 + 1000 * seconds),
    simulated: async () => false,
    ...more,
  };
  return { bench, told };
}

describe('a sweep', () => {
  const never = new AbortController().signal;
  const swept = async (bench: SweepBench, of = plan, stop: AbortSignal = never) => {
    const rows: LoadRow[] = [];
    const end = await runSweep(bench, of, stop, (row) => rows.push(row));
    return { end, rows };
  };

  test('reads every step after it has settled, and ends with the load off', async () => {
    const { bench, told } = benchOf();
    const { end, rows } = await swept(bench);
    expect(told).toEqual(['0 A', 'on', '1 A', '2 A', 'off']);
    expect(end).toEqual({ why: 'All steps are read.', complete: true, off: true });
    expect(rows.map((r) => [r.loadA, r.reservoirV, r.outputV, r.rippleV, r.sinkC])).toEqual([
      [0, 25, 20, 0, 30],
      [1, 24, 19, 0.3, 40],
      [2, 23, 18, 0.6, 50],
    ]);
    expect(rows[2]).toMatchObject({
      mainsV: 230,
      fedFrom: 'mains',
      loadedS: 4,
      at: new Date(1e12 + 12_000).toISOString(),
    });
  });

  test.each([
    ['volts', { leastV: 19.5 }, 'below your 19.5 V', 1],
    ['watts', { mostW: 30 }, 'above your 30 W', 2],
    ['degrees', { mostC: 45 }, 'above your 45 °C', 2],
    ['minutes', { mostMinutes: 0.1 }, 'Stopped after 0.1 minutes', 1],
  ])('stops at its %s, load off', async (_, limit, words, read) => {
    const { bench, told } = benchOf();
    const { end, rows } = await swept(bench, { ...plan, limits: { ...plan.limits, ...limit } });
    expect(end.why).toContain(words);
    expect(end).toMatchObject({ complete: false, off: true });
    expect(rows).toHaveLength(read);
    expect(told.at(-1)).toBe('off');
  });

  test('stops at amperes the load draws on its own account', async () => {
    const { bench, told } = benchOf({ loadReads: async () => ({ volts: 12, amps: 3.2 }) });
    const { end } = await swept(bench);
    expect(end.why).toContain('3.200 A, above your 3 A');
    expect(told.at(-1)).toBe('off');
  });

  test('rows of a stand-in say that they are simulated', async () => {
    const notes = async (simulated: boolean) => {
      const { rows } = await swept(benchOf({ simulated: async () => simulated }).bench);
      return new Set(rows.map((r) => r.note));
    };
    expect(await notes(true)).toEqual(new Set(['swept, simulated']));
    expect(await notes(false)).toEqual(new Set(['swept']));
  });

  test('stopped by the person in the middle of a step, load off', async () => {
    const stop = new AbortController();
    const { bench, told } = benchOf({ wait: async () => stop.abort() });
    const { end, rows } = await swept(bench, plan, stop.signal);
    expect(end).toEqual({ why: 'Stopped by you.', complete: false, off: true });
    expect(rows).toEqual([]);
    expect(told).toEqual(['0 A', 'on', 'off']);
  });

  test('a bad answer ends it with its words, load off', async () => {
    const { bench, told } = benchOf({ meterV: () => Promise.reject(new LineFault('meter: It answered ‘HELLO’.')) });
    const { end } = await swept(bench);
    expect(end).toEqual({ why: 'meter: It answered ‘HELLO’.', complete: false, off: true });
    expect(told.at(-1)).toBe('off');
  });

  test('noise below nothing is nothing; leads the wrong way round end it', async () => {
    const noisy = await swept(benchOf({ loadReads: async () => ({ volts: 20, amps: -0.003 }) }).bench);
    expect(noisy.rows[0]!.loadA).toBe(0);
    const swapped = benchOf({ meterV: async () => -25 });
    const { end, rows } = await swept(swapped.bench);
    expect(end.why).toContain('The meter reads -25.00, below nothing: are its leads swapped?');
    expect(rows).toEqual([]);
    expect(swapped.told.at(-1)).toBe('off');
  });

  test('a load that cannot be told is said to be so', async () => {
    const gone = () => Promise.reject(new LineFault('The connection to the load broke.'));
    const { bench } = benchOf({ loadReads: gone, loadOff: gone });
    const { end } = await swept(bench);
    expect(end).toMatchObject({ off: false, offFault: 'The connection to the load broke.' });
  });

  test.each([
    [{ amps: [] }, 'one step'],
    [{ amps: [1, 4] }, 'above the 3 A'],
    [{ amps: [-1] }, 'above the 3 A'],
    [{ amps: Array<number>(101).fill(1) }, '100 steps'],
    [{ settleS: 0.1 }, '0.2 s'],
    [{ settleS: 200 }, 'longer than you allow'],
    [{ limits: { ...plan.limits, mostMinutes: 2000 } }, 'within a day'],
  ])('of %p is refused', (part, words) => expect(planFault({ ...plan, ...part })).toContain(words));

  test('a plan is read strictly at the border', () => {
    expect(readPlan(plan)).toEqual({ ok: true, plan });
    const bad = readPlan({ ...plan, limits: { ...plan.limits, mostA: '3' } });
    expect(bad.ok ? '' : bad.fault.path).toBe('limits.mostA');
    expect(readPlan(null).ok).toBe(false);
  });
});

describe('a line', () => {
  /** A server that does something odd with what it is sent. */
  async function odd(reply: (socket: net.Socket, line: string) => void) {
    const server = net.createServer((socket) => {
      socket.on('error', () => {});
      socket.on('data', (d) => reply(socket, d.toString()));
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const said: Said[] = [];
    const line = new Line('load', { host: '127.0.0.1', port: (server.address() as net.AddressInfo).port }, (s) =>
      said.push(s),
    );
    return { line, said, end: () => (line.close(), server.close()) };
  }

  test('talks to stand-ins over the network, and everything said is in the log', async () => {
    const { ports, close } = await serveStandIns(new StandIns(new SimulatedBuild(dome, asDesigned), 230, () => 0));
    const said: Said[] = [];
    const line = new Line('load', { host: '127.0.0.1', port: ports.load }, (s) => said.push(s));
    await line.tell('CURR 1.5');
    expect(await line.ask('CURR?')).toBe('1.5');
    expect(await Promise.all([line.ask('*OPC?'), line.ask('INP?')])).toEqual(['1', '0']);
    expect(said.map((s) => `${s.way} ${s.text}`)).toEqual([
      'sent CURR 1.5',
      'sent CURR?',
      'answered 1.5',
      'sent *OPC?',
      'answered 1',
      'sent INP?',
      'answered 0',
    ]);
    line.close();
    close();
  });

  test('what a load refused ends the sweep with its words; a make without such a question is not asked', async () => {
    const { ports, close } = await serveStandIns(new StandIns(new SimulatedBuild(dome, asDesigned), 230, () => 0));
    const at = { host: '127.0.0.1', port: ports.load };
    const load = new Conversation('load', at, {});
    await load.tell('amps', 2);
    await load.accepted();
    await load.tell('amps', 500);
    await expect(load.accepted()).rejects.toThrow('The load refused what it was told: -113');
    expect(await load.isSimulated()).toBe(true);
    load.close();
    const silent = new Conversation('load', at, { error: '' });
    await silent.tell('amps', 500);
    await silent.accepted();
    silent.close();
    expect(commandFault('load', 'error', '')).toBeNull();
    close();
  });

  test('an answer in pieces is one answer', async () => {
    const { line, end } = await odd((s) => {
      s.write('1.2');
      setTimeout(() => s.write('5\r\n'), 30);
    });
    expect(await line.ask('X?')).toBe('1.25');
    end();
  });

  test('one that hangs up, one that floods and one that is not there each have a sentence', async () => {
    const hangs = await odd((s) => s.destroy());
    await expect(hangs.line.ask('X?')).rejects.toThrow(/hung up|broke/);
    hangs.end();
    const floods = await odd((s) => s.write('9'.repeat(500_000)));
    await expect(floods.line.ask('X?')).rejects.toThrow('more than an answer may hold');
    expect(floods.said.at(-1)!.way).toBe('fault');
    floods.end();
    const free = await odd(() => {});
    const port = (free.line as unknown as { address: { port: number } }).address.port;
    free.end();
    await expect(new Line('meter', { host: '127.0.0.1', port }).ask('X?')).rejects.toThrow('Nothing answers at');
  });

  test('a silent one is waited for three seconds; what it says later answers nothing', async () => {
    let count = 0;
    const { line, end } = await odd((s) => {
      if (++count === 1) setTimeout(() => s.destroyed || s.write('late\n'), 3300);
      else s.write('second\n');
    });
    await expect(line.ask('A?')).rejects.toThrow('did not answer within 3 s');
    expect(await line.ask('B?')).toBe('second');
    end();
  });

  test('nothing but one line of plain letters is ever sent', async () => {
    const heard: string[] = [];
    const { line, end } = await odd((_, l) => void heard.push(l));
    await expect(line.tell('INP OFF\nINP ON')).rejects.toThrow('cannot be sent');
    await expect(line.tell('é')).rejects.toThrow('cannot be sent');
    await expect(line.tell('x'.repeat(201))).rejects.toThrow('cannot be sent');
    expect(heard).toEqual([]);
    end();
  });
});
