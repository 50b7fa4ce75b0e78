import { NextResponse } from 'next/server';
import { readDesign } from '@/core/design/schema';
import { answered, problem, readJson } from '@/server/http';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';

export const GET = answered(() => NextResponse.json(store().list()));

/** Takes a whole design (new, duplicated or imported) and keeps it. */
export const POST = answered(async (request) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readDesign(body.value);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  return NextResponse.json(store().create(read.design), { status: 201 });
});
