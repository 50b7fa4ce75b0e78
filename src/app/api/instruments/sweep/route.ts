import { NextResponse } from 'next/server';
import { readDesign } from '@/core/design/schema';
import { planFault, type SweepPlan } from '@/core/instrument/sweep';
import { answered, problem, readJson } from '@/server/http';
import { reachableOf, startSweep, stopSweep, sweeping } from '@/server/instruments/hub';
import { readPlan } from '@/server/instruments/plan';
import { instruments } from '@/server/store';

/** Runs a sweep and tells each row as it is read, a line of JSON each; closing the connection ends it, load off first. */
export const POST = answered(async (request) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const { design, plan, metal } = body.value as Record<string, unknown>;
  const read = readDesign(design);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  const asked = readPlan(plan);
  if (!asked.ok) return problem(422, 'Not a sweep', asked.fault.sentence, { path: asked.fault.path });
  const wrong = planFault(asked.plan as SweepPlan);
  if (wrong) return problem(422, 'Not a sweep', wrong);
  if (!reachableOf(instruments(), 'load'))
    return problem(409, 'No load', 'No electronic load is entered: its address goes on the Instruments page.');
  if (sweeping()) return problem(409, 'A sweep is running', 'A sweep is running already: stop it first.');
  const stream = startSweep(instruments(), { plan: asked.plan, metal: metal === true, design: read.design });
  return new Response(stream, {
    headers: { 'content-type': 'application/x-ndjson; charset=utf-8', 'cache-control': 'no-store' },
  });
});

/** Ends the sweep that runs, load off first; whoever listens to it hears how it ended. */
export const DELETE = answered(() => {
  stopSweep();
  return new NextResponse(null, { status: 204 });
});
