import { NextResponse, type NextRequest } from 'next/server';
import { allowedHost } from '@/server/allowed-host';

/** On every answer, refusals included: nothing is sniffed, referred to, embedded or opened by another site. */
const ALWAYS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'x-frame-options': 'DENY',
};

/**
 * The one place that decides whom a request may come from, by its Host. Every page carries a content security policy with
 * a fresh nonce; nothing is ever loaded from another host, and nothing is told to one.
 */
export function proxy(request: NextRequest) {
  const host = request.headers.get('host');
  if (!allowedHost(host)) {
    const detail = `This program answers on this machine only, not as '${(host ?? '').slice(0, 80)}'.`;
    return refusal(403, 'Not from here', detail);
  }
  if (!readable(request.nextUrl.pathname)) {
    return refusal(400, 'No such address', 'The address holds characters that stand for nothing.');
  }
  const nonce = btoa(crypto.randomUUID());
  const evaluation = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${evaluation}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  for (const [name, value] of Object.entries(ALWAYS)) response.headers.set(name, value);
  return response;
}

function refusal(status: number, title: string, detail: string): NextResponse {
  return NextResponse.json(
    { type: 'about:blank', status, title, detail },
    { status, headers: { ...ALWAYS, 'content-type': 'application/problem+json' } },
  );
}

/** Whether the escapes of a path stand for characters. */
function readable(pathname: string): boolean {
  try {
    decodeURIComponent(pathname);
    return true;
  } catch {
    return false;
  }
}

// A backup that is handed in is larger than anything that is held in memory on its way: its route asks by itself.
export const config = { matcher: ['/((?!_next/static|_next/image|icon.svg|api/backup/look).*)'] };
