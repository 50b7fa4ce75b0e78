import type Database from 'better-sqlite3';
import * as yup from 'yup';
import { commandFault, INSTRUMENT_KINDS, type InstrumentKind, type OwnCommands } from '@/core/instrument/commands';
import { firstFault, type Fault } from '@/core/design/fault';
import { addressFault, type Address } from './address';

/** An instrument the person entered and confirmed. */
export interface KeptInstrument extends Address {
  kind: InstrumentKind;
  commands: OwnCommands;
  confirmedAt: string;
}

interface Row {
  kind: InstrumentKind;
  host: string;
  port: number;
  commands: string;
  confirmed_at: string;
}

export function instrumentStore(db: Database.Database) {
  const all = db.prepare('SELECT * FROM instruments');
  const put = db.prepare(
    `INSERT INTO instruments (kind, host, port, commands, confirmed_at) VALUES (@kind, @host, @port, @commands, @confirmedAt)
     ON CONFLICT (kind) DO UPDATE SET host = @host, port = @port, commands = @commands, confirmed_at = @confirmedAt`,
  );
  const remove = db.prepare('DELETE FROM instruments WHERE kind = ?');
  const list = (): KeptInstrument[] =>
    (all.all() as Row[]).map(({ confirmed_at, commands, ...rest }) => ({
      ...rest,
      commands: JSON.parse(commands) as OwnCommands,
      confirmedAt: confirmed_at,
    }));
  return {
    list,
    of: (kind: InstrumentKind): KeptInstrument | null => list().find((i) => i.kind === kind) ?? null,
    keep(kind: InstrumentKind, { host, port, commands }: Omit<KeptInstrument, 'kind' | 'confirmedAt'>): void {
      put.run({ kind, host, port, commands: JSON.stringify(commands), confirmedAt: new Date().toISOString() });
    },
    remove: (kind: InstrumentKind): boolean => remove.run(kind).changes > 0,
  };
}

export type InstrumentStore = ReturnType<typeof instrumentStore>;

const bodySchema = yup
  .object({
    host: yup.string().strict(true).required('An address is missing.').max(60),
    port: yup.number().strict(true).required('A port is missing.').typeError('A port is a whole number.'),
    commands: yup.object().default({}),
    confirmed: yup
      .boolean()
      .strict(true)
      .oneOf([true], 'An address is gone to once you have confirmed that it is your instrument.')
      .required('An address is gone to once you have confirmed that it is your instrument.'),
  })
  .noUnknown(true, 'Nothing of this is known here: ${unknown}')
  .strict(true);

/** Reads what was entered of an instrument. */
export function readInstrument(
  kind: InstrumentKind,
  value: unknown,
): { ok: true; instrument: Omit<KeptInstrument, 'kind' | 'confirmedAt'> } | { ok: false; fault: Fault } {
  try {
    const { host, port, commands } = bodySchema.validateSync(value);
    const wrong = addressFault({ host, port });
    if (wrong) return { ok: false, fault: { path: 'host', sentence: wrong } };
    for (const [ask, line] of Object.entries(commands)) {
      const fault = typeof line === 'string' ? commandFault(kind, ask, line) : 'A command is a line of text.';
      if (fault) return { ok: false, fault: { path: `commands.${ask}`, sentence: fault } };
    }
    return { ok: true, instrument: { host, port, commands: commands as OwnCommands } };
  } catch (error) {
    return { ok: false, fault: firstFault(error) };
  }
}

export const isKind = (text: string): text is InstrumentKind => (INSTRUMENT_KINDS as readonly string[]).includes(text);
