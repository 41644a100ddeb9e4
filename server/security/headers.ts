/** Headers that tell the browser what a page of this server may do. */
import { createHash } from 'node:crypto'

/** On every answer, static files too. */
export const SECURITY_HEADERS: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(), usb=(), serial=(), bluetooth=()',
}

/** Sources of scripts for the inline scripts of a page: their hashes, so that no other one is run. */
export function inlineScriptHashes(html: string): string[] {
  const hashes: string[] = []
  for (const [, attributes, content] of html.matchAll(/<script\b([^>]*)>([\s\S]*?)<\/script>/gi)) {
    if (/\bsrc=/.test(attributes) || !content) continue
    hashes.push(`'sha256-${createHash('sha256').update(content).digest('base64')}'`)
  }
  return hashes
}

/** The content security policy of a page. @param html with its inline scripts */
export function contentSecurityPolicy(html = ''): string {
  return [
    "default-src 'self'",
    ['script-src', "'self'", ...inlineScriptHashes(html)].join(' '),
    // charts and dialogs set their own styles
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "connect-src 'self' blob: data:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
}
