import { NextResponse, type NextRequest } from 'next/server';

/**
 * A strict Content-Security-Policy with a fresh nonce for each page. Nothing may be loaded from, or sent to, any
 * address but our own. Relaxations, and why:
 * - style-src 'unsafe-inline': Mantine and the chart library write style elements and attributes while running;
 *   a style can neither run code nor, under the other rules, fetch anything from elsewhere.
 * - script-src 'unsafe-eval' in development only: React's and Next's development tools need it.
 * - img-src data: and blob: icons inside style sheets, and charts drawn to an image.
 * - worker-src blob: the bundler may start a worker by a small blob that imports the script from our address.
 */
export function proxy(request: NextRequest): NextResponse {
  const nonce = btoa(crypto.randomUUID());
  const dev = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  return response;
}

export const config = {
  // Everything but the files of the build, whose policy stands in next.config.ts: also what is not there.
  matcher: [{ source: '/((?!_next/static/).*)' }],
};
