import { decodeHTML } from 'entities'

/** The addresses that clean notes link to, each once, in their order. */
export const linkedAddresses = (html: string): string[] => [
  ...new Set([...html.matchAll(/<a href="([^"]*)"/g)].map(([, href]) => decodeHTML(href!)).filter(Boolean)),
]

/** Whether an address that a link has looks as none on the web, or for mail, can. */
export function isMisspelt(address: string): boolean {
  if (/^mailto:/i.test(address)) return !/^mailto:[^\s@]+@[^\s@.]+(\.[^\s@.]+)+(\?\S*)?$/i.test(address)
  if (!/^https?:\/\//i.test(address) || !URL.canParse(address)) return true
  const { hostname } = new URL(address)
  if (hostname.startsWith('[')) return false
  // A host on the public web has a domain behind a dot (RFC 1035, section 2.3.1); a scheme that was typed twice is no host.
  return !/^[a-z0-9_-]+(\.[a-z0-9_-]+)+$/i.test(hostname) || /^https?(\.|$)/i.test(hostname)
}
