import { NextResponse } from 'next/server';
import { databaseFile, forgetDatabase, restoreCopy } from '@/server/database';
import { failure, problem, refuseForeign } from '@/server/http';
import { forgetStores } from '@/server/store';
import type { NextRequest } from 'next/server';

export const dynamic = 'force-dynamic';

/** Puts the newest sound copy in the place of a damaged file. */
export function POST(request: NextRequest) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  try {
    const taken = restoreCopy(databaseFile());
    if (!taken) return problem(409, 'Nothing to take', 'The file is sound, or no sound copy lies beside it.');
    forgetDatabase();
    forgetStores();
    return NextResponse.json(taken);
  } catch (error) {
    return failure(error);
  }
}
