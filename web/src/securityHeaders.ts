/**
 * What a browser may do with what Sinew sends it: talk to Sinew and to nobody else, show it in no
 * other page, take nothing for what it was not sent as. Source: W3C Content Security Policy Level 3.
 */

const policy = (rules: Readonly<Record<string, string>>) =>
  Object.entries(rules)
    .map(([name, value]) => `${name} ${value}`.trim())
    .join('; ');

const isDevelopment = process.env.NODE_ENV === 'development';

/** @param nonce of this one answer, for the scripts that stand in the page itself */
export function pagePolicy(nonce: string): string {
  return policy({
    'default-src': "'self'",
    // The body tracker is WebAssembly; the development server evaluates its modules.
    'script-src': `'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${isDevelopment ? " 'unsafe-eval'" : ''}`,
    // Widths and places stand in style attributes.
    'style-src': "'self' 'unsafe-inline'",
    'img-src': "'self' blob: data:",
    'media-src': "'self' blob:",
    'worker-src': "'self' blob:",
    'connect-src': "'self'",
    'object-src': "'none'",
    'base-uri': "'none'",
    'form-action': "'self'",
    'frame-ancestors': "'none'",
  });
}

/** For scripts, of which workers take their own policy, and for everything that is no page. */
const FILE_POLICY = policy({
  'default-src': "'none'",
  'script-src': "'self' blob: 'wasm-unsafe-eval'",
  'worker-src': "'self' blob:",
  'connect-src': "'self'",
  'base-uri': "'none'",
  'form-action': "'none'",
  'frame-ancestors': "'none'",
});

/** For what coaches and other machines have handed in: it may do nothing at all. */
const DATA_POLICY = policy({
  'default-src': "'none'",
  'base-uri': "'none'",
  'form-action': "'none'",
  'frame-ancestors': "'none'",
  sandbox: '',
});

/** For the page that needs no database: it runs no script, and its forms go to Sinew alone. */
export const RECOVERY_POLICY = policy({
  'default-src': "'none'",
  'style-src': "'self'",
  'img-src': "'self'",
  'base-uri': "'none'",
  'form-action': "'self'",
  'frame-ancestors': "'none'",
});

/** For a student's lesson: its own script, its own pictures and films, and one address to send ticks to. */
export const lessonPolicy = (nonce: string): string =>
  policy({
    'default-src': "'none'",
    'script-src': `'nonce-${nonce}'`,
    'style-src': "'unsafe-inline'",
    'img-src': "'self'",
    'media-src': "'self'",
    'connect-src': "'self'",
    'base-uri': "'none'",
    'form-action': "'none'",
    'frame-ancestors': "'none'",
  });

const COMMON = {
  'x-content-type-options': 'nosniff',
  // With no referrer at all, a form sent to Sinew itself would not say where it comes from.
  'referrer-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'permissions-policy': 'camera=(self), microphone=(self), geolocation=(), payment=(), usb=()',
};

const listed = (headers: Readonly<Record<string, string>>) =>
  Object.entries(headers).map(([key, value]) => ({ key, value }));

/** As `headers()` of Next's configuration wants them; pages get their policy in `proxy.ts`. */
export const HEADER_RULES = [
  { source: '/:path*', headers: listed(COMMON) },
  { source: '/_next/:path*', headers: listed({ 'content-security-policy': FILE_POLICY }) },
  { source: '/tracker/:path*', headers: listed({ 'content-security-policy': FILE_POLICY }) },
  { source: '/:file([^/]+\\.js)', headers: listed({ 'content-security-policy': FILE_POLICY }) },
  { source: '/api/:path*', headers: listed({ 'content-security-policy': DATA_POLICY }) },
  {
    source: '/:file([^/]+\\.(?:svg|mp4|css))',
    headers: listed({ 'content-security-policy': DATA_POLICY }),
  },
];
