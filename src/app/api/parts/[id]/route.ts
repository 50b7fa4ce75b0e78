import { NextResponse } from 'next/server';
import { answered, problem, readJson } from '@/server/http';
import { readPart } from '@/core/drawer/part-schema';
import { drawer } from '@/server/store';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const missing = () => problem(404, 'Not in the drawer', 'This part is not in the drawer any more.');

export const PUT = answered<Context>(async (request, { params }) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readPart(body.value);
  if (!read.ok) return problem(422, 'Not a part', read.error);
  const part = drawer().change((await params).id, read.part);
  return part ? NextResponse.json(part) : missing();
});

/** Takes a part out of the drawer. One that designs were given is only taken with `sure=1`; they keep its values. */
export const DELETE = answered<Context>(async (request, { params }) => {
  const { id } = await params;
  const users = drawer().usedBy(id);
  if (users.length > 0 && request.nextUrl.searchParams.get('sure') !== '1') {
    return problem(409, 'In use', `This part is in ${users.map((u) => u.name).join(', ')}.`, { users });
  }
  return drawer().remove(id) ? new NextResponse(null, { status: 204 }) : missing();
});

/** Puts a removed part back, under its own id. */
export const POST = answered<Context>(async (request, { params }) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readPart(body.value);
  if (!read.ok) return problem(422, 'Not a part', read.error);
  drawer().restore({ ...read.part, id: (await params).id });
  return new NextResponse(null, { status: 204 });
});
