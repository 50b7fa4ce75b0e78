import { createReadStream, rmSync, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { NextResponse } from 'next/server';
import { copiesBeside, lastBackup, makeBackup } from '@/server/backup';
import { database, databaseFile } from '@/server/database';
import { answered } from '@/server/http';

export const dynamic = 'force-dynamic';

/** When the last backup was made, and the copies the program made by itself. */
export const GET = answered(() =>
  NextResponse.json({ last: lastBackup(database()), copies: copiesBeside(databaseFile()) }),
);

/** Everything in one file, while the program runs. */
export const POST = answered(async () => {
  const file = await makeBackup(database(), databaseFile());
  const stream = createReadStream(file);
  // Handed over or not: it does not stay.
  stream.on('close', () => rmSync(file, { force: true }));
  const name = `ember-rail-${new Date().toISOString().slice(0, 10)}.backup`;
  return new Response(Readable.toWeb(stream) as ReadableStream, {
    headers: {
      'content-type': 'application/vnd.sqlite3',
      'content-length': String(statSync(file).size),
      'content-disposition': `attachment; filename="${name}"`,
    },
  });
});
