import { NextResponse, type NextRequest } from 'next/server';
import { allowedHost } from './allowed-host';
import { databaseFile, refuseReadOnly } from './database';
import { DEPTH_MAX } from './stored-document';
import { depthOfJson } from './json-depth';
import { DatabaseTrouble, troubleOf, troubleWords } from './trouble';

/** Largest body a request may carry, bytes. */
const BODY_MAX = 2_000_000;

/** An answer in the form of RFC 9457: a sentence for the person, and the path of the field. */
export function problem(
  status: number,
  title: string,
  detail: string,
  extra: Record<string, unknown> = {},
): NextResponse {
  return NextResponse.json(
    { type: 'about:blank', status, title, detail, ...extra },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );
}

type Handler<C> = (request: NextRequest, context: C) => Response | Promise<Response>;
type Route<C> = (request: NextRequest, context: C) => Promise<Response>;

/**
 * A route's handler with everything every route owes: changes come from the program's own pages only (what host a request
 * may be for is the proxy's), nothing is written where nothing may be, and whatever fails is answered with a problem.
 */
export function answered(handler: Handler<void>): (request: NextRequest) => Promise<Response>;
export function answered<C>(handler: Handler<C>): Route<C>;
export function answered<C>(handler: Handler<C>): Route<C> {
  return async (request, context) => {
    const refused = refuseForeign(request);
    if (refused) return refused;
    try {
      if (request.method !== 'GET') refuseReadOnly();
      return await handler(request, context);
    } catch (error) {
      return failure(error);
    }
  };
}

/** Refuses changes that another site's page asks for: the Origin has to match the Host. */
export function refuseForeign(request: NextRequest): NextResponse | null {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  if (request.method !== 'GET' && origin !== null && !sameHost(origin, host)) {
    return problem(403, 'Not from here', 'Changes are taken from this program’s own pages only.');
  }
  return null;
}

/** Refuses a request for another host, where the proxy that refuses all others does not stand in front. */
export function refuseHost(request: NextRequest): NextResponse | null {
  const host = request.headers.get('host');
  return allowedHost(host) ? null : problem(403, 'Not from here', 'This program answers on this machine only.');
}

/** What failed, told apart: the file, or the program itself. */
export function failure(error: unknown): NextResponse {
  if (error instanceof DatabaseTrouble)
    return problem(statusOf(error.kind), 'Not kept', error.message, { kind: error.kind });
  const kind = troubleOf(error);
  if (kind) return problem(statusOf(kind), 'Not kept', troubleWords(kind, databaseFile()), { kind });
  process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
  return problem(500, 'The program failed', 'Something in the program itself failed. Nothing was changed.');
}

const statusOf = (kind: DatabaseTrouble['kind']) => (kind === 'full' ? 507 : 503);

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

/** Reads a JSON body within the size limit. The problem to answer with comes back when it is not one. */
export async function readJson(
  request: NextRequest,
  most = BODY_MAX,
): Promise<{ ok: true; value: unknown } | { ok: false; answer: NextResponse }> {
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > most) return { ok: false, answer: tooLarge(most) };
  const text = await request.text();
  if (text.length > most) return { ok: false, answer: tooLarge(most) };
  if (depthOfJson(text) > DEPTH_MAX) {
    const detail = `This is nested deeper than anything kept here: ${DEPTH_MAX} brackets within each other are the most.`;
    return { ok: false, answer: problem(422, 'Too deep', detail, { path: '' }) };
  }
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch {
    return {
      ok: false,
      answer: problem(400, 'Not JSON', 'This is not a JSON file: it could not be read at all.', { path: '' }),
    };
  }
}

/** Reads a body of bytes within a size limit. It is never gathered beyond it, whatever was declared. */
export async function readBytes(
  request: NextRequest,
  most: number,
): Promise<{ ok: true; value: Buffer } | { ok: false; answer: NextResponse }> {
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > most) return { ok: false, answer: tooLarge(most) };
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    size += part.value.length;
    if (size > most) {
      await reader!.cancel();
      return { ok: false, answer: tooLarge(most) };
    }
    chunks.push(part.value);
  }
  return { ok: true, value: Buffer.concat(chunks) };
}

function tooLarge(most: number): NextResponse {
  return problem(413, 'Too large', `This is larger than anything kept here: ${most / 1e6} MB is the most.`);
}
