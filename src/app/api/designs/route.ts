import { NextResponse, type NextRequest } from 'next/server';
import { readDesign } from '@/core/design/schema';

import { store } from '@/server/store';
import { problem, readJson, refuseForeign } from '@/server/http';

export const dynamic = 'force-dynamic';

export function GET(request: NextRequest) {
  return refuseForeign(request) ?? NextResponse.json(store().list());
}

/** Takes a whole design (new, duplicated or imported) and keeps it. */
export async function POST(request: NextRequest) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readDesign(body.value);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  return NextResponse.json(store().create(read.design), { status: 201 });
}
