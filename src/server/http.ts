import { NextResponse, type NextRequest } from 'next/server';
import { allowedHost } from './allowed-host';

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

/**
 * Refuses writes that do not come from the program's own pages: the Origin has to match the Host, and the Host has to
 * be this machine unless another was allowed (against cross-site posts and DNS rebinding).
 */
export function refuseForeign(request: NextRequest): NextResponse | null {
  const host = request.headers.get('host') ?? '';
  if (!allowedHost(host)) {
    return problem(403, 'Not from here', `This program answers on this machine only, not as '${host.slice(0, 80)}'.`);
  }
  const origin = request.headers.get('origin');
  if (request.method !== 'GET' && origin !== null && !sameHost(origin, host)) {
    return problem(403, 'Not from here', 'Changes are taken from this program’s own pages only.');
  }
  return null;
}

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
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch {
    return {
      ok: false,
      answer: problem(400, 'Not JSON', 'This is not a JSON file: it could not be read at all.', { path: '' }),
    };
  }
}

function tooLarge(most: number): NextResponse {
  return problem(413, 'Too large', `This is larger than anything kept here: ${most / 1e6} MB is the most.`);
}
