import { NextResponse } from 'next/server';
import * as yup from 'yup';
import { putInPlace, waitingFile } from '@/server/backup';
import { database, databaseFile } from '@/server/database';
import { answered, problem, readJson } from '@/server/http';

export const dynamic = 'force-dynamic';

const orderSchema = yup.object({ token: yup.string().strict(true).uuid().required() });

/** Puts a backup that was looked into in the place of everything here; how it stood is kept beside it. */
export const POST = answered(async (request) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  if (!orderSchema.isValidSync(body.value))
    return problem(422, 'Which backup?', 'A backup is looked into before it is put in place.', { path: 'token' });
  const file = databaseFile();
  const done = await putInPlace(database(), file, waitingFile(file, body.value.token));
  return typeof done === 'string' ? problem(409, 'Not restored', done) : NextResponse.json(done);
});
