import { NextRequest, NextResponse } from 'next/server';
import { ownHost } from './server/own-host';

/**
 * What a page may do (Content Security Policy, level 3): run our own scripts only, by a nonce of each answer; compile the kernel
 * (WebAssembly); use workers, some of which libraries make from blobs; fonts and pictures may be data. Styles are set by attribute
 * in the pictures. Nobody may frame it.
 */
const policyFor = (nonce: string): string =>
  [
    "default-src 'none'",
    // While it is developed the framework evaluates what it reloads.
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${process.env.NODE_ENV === 'production' ? '' : " 'unsafe-eval'"}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "media-src 'self' blob:",
    "connect-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join('; ');

/** Give each page its policy; the framework puts the nonce on the scripts it writes. */
export function proxy(request: NextRequest): NextResponse {
  if (!ownHost(request.headers.get('host')))
    return new NextResponse('This address is not Wendel’s: see WENDEL_URL in the README.', { status: 421 });
  const policy = policyFor(Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64'));
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  headers.set('x-wendel-path', request.nextUrl.pathname);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  // Served over https, it is not asked for without again.
  if (process.env.WENDEL_HTTPS === '1') response.headers.set('strict-transport-security', 'max-age=31536000');
  return response;
}

/** Pages only: files have no scripts to guard, and uploads must not be read here. */
export const config = { matcher: ['/((?!_next/|api/|piano/|worklets/|.*\\.(?:js|svg|png|ico|webmanifest)$).*)'] };
