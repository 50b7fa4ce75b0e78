import { NextResponse } from 'next/server';
import { answered, problem } from '@/server/http';
import { revisions } from '@/server/store';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string; revision: string }> };

/** One kept state of a design. */
export const GET = answered<Context>(async (_, { params }) => {
  const { id, revision } = await params;
  const found = revisions().open(id, revision);
  if (!found) return problem(404, 'Not kept', 'There is no such revision of this design.');
  if (!found.ok) return problem(422, 'Cannot be read', found.sentence);
  return NextResponse.json({ ...found.revision, design: found.design });
});
