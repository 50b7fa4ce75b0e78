import { partsCsv } from '@/core/drawer/csv';
import { answered } from '@/server/http';
import { drawer } from '@/server/store';

export const dynamic = 'force-dynamic';

/** The whole drawer as a file. */
export const GET = answered(() => {
  return new Response(partsCsv(drawer().all()), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="ember-rail-drawer.csv"',
    },
  });
});
