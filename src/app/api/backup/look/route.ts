import { copyFileSync, createWriteStream, rmSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { NextResponse } from 'next/server';
import { BACKUP_BYTES_MAX, copyNamed, newWaitingFile } from '@/server/backup';
import { databaseFile } from '@/server/database';
import { answered, problem, refuseHost } from '@/server/http';
import { look } from '@/server/looking';

export const dynamic = 'force-dynamic';

/** Looks into a backup that is handed in, or with ?copy= into one that lies beside the file. Nothing is replaced. */
export const POST = answered(async (request) => {
  // A file of this size does not go through the proxy: whom it may come from is asked here.
  const foreign = refuseHost(request);
  if (foreign) return foreign;
  const file = databaseFile();
  const { token, at } = newWaitingFile(file);
  const copy = request.nextUrl.searchParams.get('copy');
  if (copy !== null) {
    const found = copyNamed(file, copy);
    if (!found) return problem(404, 'No such copy', 'This copy is no longer there.');
    copyFileSync(found, at);
  } else {
    const refused = await taken(request.body, at);
    if (refused) return refused;
  }
  const found = await look({ file, at, token });
  if (typeof found !== 'string') return NextResponse.json(found);
  for (const part of ['', '-wal', '-shm']) rmSync(`${at}${part}`, { force: true });
  return problem(422, 'No backup', found);
});

/** Writes a body to a file as it comes; the problem to answer with where it is too large or nothing. */
async function taken(body: ReadableStream<Uint8Array> | null, at: string): Promise<NextResponse | null> {
  if (!body) return problem(422, 'No backup', 'There is nothing in this file.');
  let size = 0;
  const counted = new TransformStream<Uint8Array, Uint8Array>({
    transform(chunk, next) {
      size += chunk.length;
      if (size > BACKUP_BYTES_MAX) next.error(new RangeError('too large'));
      else next.enqueue(chunk);
    },
  });
  try {
    await pipeline(
      Readable.fromWeb(body.pipeThrough(counted) as Parameters<typeof Readable.fromWeb>[0]),
      createWriteStream(at),
    );
    if (size > 0) return null;
  } catch (error) {
    rmSync(at, { force: true });
    if (!(error instanceof RangeError)) throw error;
    return problem(413, 'Too large', `This is larger than any backup: ${BACKUP_BYTES_MAX / 1e6} MB is the most.`);
  }
  rmSync(at, { force: true });
  return problem(422, 'No backup', 'There is nothing in this file.');
}
