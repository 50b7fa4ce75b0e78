import { NextResponse } from 'next/server';
import { answered, problem } from '@/server/http';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';

const MOST = 300;

/** What the small terraces of ?ids=a,b,c are drawn from. */
export const GET = answered((request) => {
  const ids = (request.nextUrl.searchParams.get('ids') ?? '').split(',').filter(Boolean);
  if (ids.length > MOST) return problem(422, 'Too many at once', `Ask for ${MOST} designs at most.`, { path: 'ids' });
  return NextResponse.json(store().summaries(ids));
});
