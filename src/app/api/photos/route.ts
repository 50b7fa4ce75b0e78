import { NextResponse } from 'next/server';
import { answered, problem, readBytes } from '@/server/http';
import { PHOTO_BYTES_MAX, preparedPhoto } from '@/server/photos';
import { photos } from '@/server/store';

export const dynamic = 'force-dynamic';

/** Takes a picture in, makes it fit to be kept, and answers with its name. */
export const POST = answered(async (request) => {
  const body = await readBytes(request, PHOTO_BYTES_MAX);
  if (!body.ok) return body.answer;
  const made = await preparedPhoto(body.value);
  if (typeof made === 'string') return problem(422, 'No picture', made);
  photos().keep(made);
  const { id, width, height } = made;
  return NextResponse.json({ id, width, height }, { status: 201 });
});
