import { NextResponse } from 'next/server';
import { faultsToHide } from '@/core/bench/simulated-build';
import { readDesign } from '@/core/design/schema';
import { dice } from '@/core/quantity/dice';
import { answered, problem, readJson } from '@/server/http';
import { playStandIns, stopStandIns, sweeping } from '@/server/instruments/hub';

/** A seed is a whole number of a size a person can write down. */
const SEED_MAX = 999_999;

/** Starts simulated instruments around a build of a design: sound, or with a fault nobody is told. */
export const POST = answered(async (request) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const { design, seed, faulty, speed } = body.value as Record<string, unknown>;
  const read = readDesign(design);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  if (typeof seed !== 'number' || !Number.isInteger(seed) || seed < 1 || seed > SEED_MAX)
    return problem(422, 'Not a seed', `A seed is a whole number from 1 to ${SEED_MAX}.`, { path: 'seed' });
  if (typeof speed !== 'number' || !(speed >= 1 && speed <= 600))
    return problem(422, 'Not a speed', 'Warming goes at 1 to 600 times its pace.', { path: 'speed' });
  if (sweeping()) return problem(409, 'A sweep is running', 'A sweep has the instruments: stop it first.');
  const faults = faultsToHide(read.design).filter((f) => f !== 'none');
  const fault = faulty === true ? faults[Math.floor(dice(seed).uniform() * faults.length)]! : 'none';
  const told = await playStandIns({ design: read.design, seed, fault, speed });
  return 'fault' in told ? problem(503, 'Not started', told.fault) : NextResponse.json(told, { status: 201 });
});

/** Ends them. */
export const DELETE = answered(() => {
  stopStandIns();
  return new NextResponse(null, { status: 204 });
});
