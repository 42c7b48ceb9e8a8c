/**
 * What a page of this server may load and who may show it: its own scripts, styles, fonts and pictures, nothing from elsewhere, in nobody's
 * frame. Names of directives: Content Security Policy Level 3.
 * @param inlineScripts hashes of the scripts that stand in the page itself, such as `sha256-…`.
 */
export const contentPolicy = (inlineScripts: readonly string[] = []): string =>
  [
    "default-src 'none'",
    ['script-src', "'self'", ...inlineScripts.map(hash => `'${hash}'`)].join(' '),
    "style-src 'self' 'unsafe-inline'", // charts and tables place what they draw by styles
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')

/** On every reply, files of the application included. */
export const securityHeaders: Readonly<Record<string, string>> = {
  'content-security-policy': contentPolicy(),
  'x-frame-options': 'DENY',
  'x-content-type-options': 'nosniff',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'referrer-policy': 'no-referrer',
  'permissions-policy': 'camera=(), display-capture=(), geolocation=(), microphone=(), payment=(), usb=()',
}
