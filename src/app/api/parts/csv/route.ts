import { type NextRequest } from 'next/server';
import { partsCsv } from '@/core/drawer/csv';
import { refuseForeign } from '@/server/http';
import { drawer } from '@/server/store';

export const dynamic = 'force-dynamic';

/** The whole drawer as a file. */
export function GET(request: NextRequest) {
  return (
    refuseForeign(request) ??
    new Response(partsCsv(drawer().all()), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="ember-rail-drawer.csv"',
      },
    })
  );
}
