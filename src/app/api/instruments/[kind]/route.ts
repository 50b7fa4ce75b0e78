import { NextResponse } from 'next/server';
import { answered, problem, readJson } from '@/server/http';
import { giveWay, identify } from '@/server/instruments/hub';
import { isKind, readInstrument } from '@/server/instruments/store';
import { instruments } from '@/server/store';

type Context = { params: Promise<{ kind: string }> };

/** Enters an instrument the person has confirmed, with the words its make understands. */
export const PUT = answered<Context>(async (request, { params }) => {
  const { kind } = await params;
  if (!isKind(kind)) return noSuch(kind);
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readInstrument(kind, body.value);
  if (!read.ok) return problem(422, 'Not an instrument', read.fault.sentence, { path: read.fault.path });
  giveWay(kind);
  instruments().keep(kind, read.instrument);
  return NextResponse.json(await identify(instruments().of(kind)!));
});

/** Forgets an instrument. */
export const DELETE = answered<Context>(async (_, { params }) => {
  const { kind } = await params;
  if (!isKind(kind)) return noSuch(kind);
  giveWay(kind);
  instruments().remove(kind);
  return new NextResponse(null, { status: 204 });
});

const noSuch = (kind: string) =>
  problem(404, 'No such instrument', `There is no instrument called '${kind.slice(0, 40)}'.`);
