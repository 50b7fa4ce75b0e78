/** What a person may have on the network beside a supply. */
export const INSTRUMENT_KINDS = ['meter', 'load', 'scope', 'source'] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

/** What is asked of an instrument: a value put in, and whether it answers. */
interface Ask {
  words: string;
  usual: string;
  takes?: true;
  answers?: 'number' | 'numbers' | 'switch' | 'text';
  /** Left empty where a make has no such thing: it is not asked then. */
  optional?: true;
}

/**
 * What is said to each instrument for each thing wanted of it: the usual words, editable, for makes differ. `{value}` is
 * where a number goes, in volts, amperes or seconds.
 */
export const COMMANDS = {
  meter: {
    volts: { words: 'DC volts', usual: 'MEAS:VOLT:DC?', answers: 'number' },
    acVolts: { words: 'AC volts', usual: 'MEAS:VOLT:AC?', answers: 'number' },
    amps: { words: 'DC amperes', usual: 'MEAS:CURR:DC?', answers: 'number' },
    ohms: { words: 'Ohms', usual: 'MEAS:RES?', answers: 'number' },
    celsius: { words: 'Degrees', usual: 'MEAS:TEMP?', answers: 'number' },
  },
  load: {
    mode: { words: 'Constant current', usual: 'FUNC CURR' },
    amps: { words: 'Set amperes', usual: 'CURR {value}', takes: true },
    on: { words: 'Load on', usual: 'INP ON' },
    off: { words: 'Load off', usual: 'INP OFF' },
    isOn: { words: 'Is it on', usual: 'INP?', answers: 'switch' },
    volts: { words: 'Volts at its terminals', usual: 'MEAS:VOLT?', answers: 'number' },
    drawn: { words: 'Amperes it draws', usual: 'MEAS:CURR?', answers: 'number' },
    error: { words: 'What it refused', usual: 'SYST:ERR?', answers: 'text', optional: true },
  },
  scope: {
    time: { words: 'Seconds a division', usual: 'TIM:SCAL {value}', takes: true },
    scale: { words: 'Volts a division', usual: 'CHAN1:SCAL {value}', takes: true },
    acquire: { words: 'Take one', usual: 'ACQ' },
    trace: { words: 'The trace, volts', usual: 'WAV:DATA?', answers: 'numbers' },
    step: { words: 'Seconds between its points', usual: 'WAV:XINC?', answers: 'number' },
  },
  source: {
    volts: { words: 'Set mains volts', usual: 'VOLT {value}', takes: true },
    on: { words: 'Source on', usual: 'OUTP ON' },
    off: { words: 'Source off', usual: 'OUTP OFF' },
    read: { words: 'Mains volts it gives', usual: 'MEAS:VOLT:AC?', answers: 'number' },
  },
} as const satisfies Record<InstrumentKind, Record<string, Ask>>;

export type AskOf<K extends InstrumentKind> = keyof (typeof COMMANDS)[K] & string;

/** What a person changed in the table, by what is asked. */
export type OwnCommands = Readonly<Record<string, string>>;

export const asksOf = (kind: InstrumentKind) => Object.entries(COMMANDS[kind]) as [string, Ask][];

/** The line sent for something wanted. @throws Error for something no such instrument is asked */
export function lineFor(kind: InstrumentKind, ask: string, own: OwnCommands, value?: number): string {
  const known = (COMMANDS[kind] as Record<string, Ask>)[ask];
  if (!known) throw new Error(`nothing called ${ask} is asked of a ${kind}`);
  const line = own[ask] ?? known.usual;
  return known.takes ? line.replaceAll('{value}', String(Number((value ?? 0).toPrecision(6)))) : line;
}

/** Longest line sent to an instrument, letters. */
export const LINE_MAX = 200;

/** Why a line of the table cannot be used, as a sentence; null where it can. */
export function commandFault(kind: InstrumentKind, ask: string, line: string): string | null {
  const known = (COMMANDS[kind] as Record<string, Ask>)[ask];
  if (!known) return `Nothing called ‘${ask}’ is asked of a ${kind}.`;
  if (known.optional && line === '') return null;
  if (!/^[\x20-\x7e]+$/.test(line)) return `${known.words}: a command is one line of plain letters.`;
  if (line.length > LINE_MAX) return `${known.words}: a command has at most ${LINE_MAX} letters.`;
  if (known.takes && !line.includes('{value}')) return `${known.words}: {value} has to stand where the number goes.`;
  if (!known.takes && line.includes('{value}'))
    return `${known.words}: nothing is put in here, {value} cannot stand in it.`;
  if (known.answers && !line.includes('?')) return `${known.words}: this has to be a question, with its question mark.`;
  if (!known.answers && line.includes('?')) return `${known.words}: this is no question; nobody would read the answer.`;
  return null;
}
