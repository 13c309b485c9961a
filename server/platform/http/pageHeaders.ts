import type { IncomingMessage, ServerResponse } from 'node:http'
import helmet from 'helmet'
import type { Configuration } from '../configuration'

/** What pages may load: their own files only, and the listener's page nothing of ours but sound and pictures. */
export function pageHeaders({ publicUrl }: Pick<Configuration, 'publicUrl'>) {
  return {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // The interface library writes its theme into style elements.
        styleSrc: ["'self'", "'unsafe-inline'"],
        // Pages at a show's own host have their pictures from the house.
        imgSrc: ["'self'", new URL(publicUrl).origin, 'data:', 'blob:'],
        // Episodes may have their audio elsewhere.
        mediaSrc: ["'self'", 'blob:', 'https:', 'http:'],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: publicUrl.startsWith('https:') ? [] : null,
      },
    },
    strictTransportSecurity: publicUrl.startsWith('https:'),
  }
}

/** The same as headers, the same for each page, for those that are written once. */
export function writtenPageHeaders(configuration: Pick<Configuration, 'publicUrl'>): Record<string, string> {
  const headers: Record<string, string> = {}
  const response = {
    setHeader: (name: string, value: string) => (headers[name.toLowerCase()] = value),
    removeHeader: () => undefined,
  }
  helmet(pageHeaders(configuration))(
    {} as IncomingMessage,
    response as unknown as ServerResponse,
    (error?: unknown) => {
      if (error) throw error
    },
  )
  return headers
}

/** The same for a page that any other site may show in a frame (CSP 3, frame-ancestors; it stands above X-Frame-Options). */
export function framedAnywhere(headers: Readonly<Record<string, string>>): Record<string, string> {
  const { 'x-frame-options': _none, 'content-security-policy': policy, ...others } = headers
  return {
    ...others,
    ...(policy && { 'content-security-policy': policy.replace("frame-ancestors 'none'", 'frame-ancestors *') }),
  }
}

/** The same for a page that may show a frame of one other site. */
export function withFrameOf(origin: string, headers: Readonly<Record<string, string>>): Record<string, string> {
  const { 'content-security-policy': policy, ...others } = headers
  return { ...others, ...(policy && { 'content-security-policy': `${policy};frame-src ${origin}` }) }
}

/** Of a page that is looked at inside the studio, and nowhere else; the scripts of a page run there as they do outside. */
export const lookedAtInside: Readonly<Record<string, string>> = {
  'content-security-policy':
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: https: http:; media-src 'self' https: http:; frame-ancestors 'self'; base-uri 'none'; form-action 'none'",
  'x-frame-options': 'SAMEORIGIN',
  'cache-control': 'no-store',
}
