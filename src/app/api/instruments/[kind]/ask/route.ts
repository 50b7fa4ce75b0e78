import { NextResponse } from 'next/server';
import { asksOf, type AskOf, type InstrumentKind } from '@/core/instrument/commands';
import { answered, problem, readJson } from '@/server/http';
import { reachableOf, sweeping, withInstrument } from '@/server/instruments/hub';
import { LineFault } from '@/server/instruments/line';
import { isKind } from '@/server/instruments/store';
import { instruments } from '@/server/store';

type Context = { params: Promise<{ kind: string }> };

/** One reading of an instrument: what is asked has to be a number of the table. */
export const POST = answered<Context>(async (request, { params }) => {
  const { kind } = await params;
  const kept = isKind(kind) ? reachableOf(instruments(), kind) : null;
  if (!kept) return problem(404, 'No such instrument', `No ${kind.slice(0, 40)} is entered.`);
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const { ask } = body.value as { ask?: unknown };
  const known = asksOf(kept.kind).find(([name]) => name === ask)?.[1];
  if (known?.answers !== 'number')
    return problem(422, 'Not a reading', `'${String(ask).slice(0, 40)}' is no reading of a ${kept.kind}.`);
  if (sweeping())
    return problem(409, 'A sweep is running', 'A sweep has the instruments: stop it first, or wait for its end.');
  try {
    const value = await withInstrument(kept.kind, kept, (i) => i.number(ask as AskOf<InstrumentKind>));
    return NextResponse.json({ value });
  } catch (error) {
    if (!(error instanceof LineFault)) throw error;
    return problem(502, 'No reading', error.message);
  }
});
