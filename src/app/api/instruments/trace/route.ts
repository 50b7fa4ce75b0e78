import { NextResponse } from 'next/server';
import { answered, problem, readJson } from '@/server/http';
import { reachableOf, sweeping, withInstrument } from '@/server/instruments/hub';
import { LineFault } from '@/server/instruments/line';
import { instruments } from '@/server/store';

/** One trace of the scope, with so many seconds to a division. */
export const POST = answered(async (request) => {
  const kept = reachableOf(instruments(), 'scope');
  if (!kept) return problem(404, 'No scope', 'No scope is entered: its address goes on the Instruments page.');
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const { secondsPerDivision: seconds } = body.value as { secondsPerDivision?: unknown };
  if (typeof seconds !== 'number' || !(seconds > 0 && seconds <= 10))
    return problem(422, 'Not a time', 'Seconds to a division have to be above nothing, and 10 at most.');
  if (sweeping())
    return problem(409, 'A sweep is running', 'A sweep has the instruments: stop it first, or wait for its end.');
  try {
    const trace = await withInstrument('scope', kept, async (scope) => {
      await scope.tell('time', seconds);
      await scope.tell('acquire');
      const values = await scope.numbers('trace');
      const stepS = await scope.number('step');
      if (!(stepS > 0)) throw new LineFault('scope: it says that no time lies between its points.');
      const simulated = await scope.isSimulated();
      return { t: values.map((_, n) => n * stepS), values, simulated };
    });
    return NextResponse.json(trace);
  } catch (error) {
    if (!(error instanceof LineFault)) throw error;
    return problem(502, 'No trace', error.message);
  }
});
