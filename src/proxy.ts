import { NextResponse, type NextRequest } from 'next/server';
import { allowedHost } from '@/server/allowed-host';

/**
 * Every page carries a content security policy with a fresh nonce; nothing is ever loaded from another host, and
 * nothing is told to one.
 */
export function proxy(request: NextRequest) {
  if (!allowedHost(request.headers.get('host'))) {
    return new NextResponse('This program answers on this machine only.', { status: 403 });
  }
  const nonce = btoa(crypto.randomUUID());
  const evaluation = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${evaluation}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
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
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image|icon.svg).*)'] };
