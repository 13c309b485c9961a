import { type Colour, isColour } from './contrast'

/** How a player in another site's page looks; what is not said follows the show and the reader's device. */
export interface EmbedTheme {
  scheme: 'light' | 'dark' | null
  accent: Colour | null
}

/** Reads it from what stands behind the `?` of an address; what it does not know counts as not said. */
export function readEmbedTheme(query: string): EmbedTheme {
  const said = new URLSearchParams(query)
  const scheme = said.get('scheme')
  const accent = `#${said.get('accent')?.toLowerCase() ?? ''}`
  return {
    scheme: scheme === 'light' || scheme === 'dark' ? scheme : null,
    accent: isColour(accent) ? accent : null,
  }
}

export function embedQuery({ scheme, accent }: EmbedTheme): string {
  const said = new URLSearchParams()
  if (scheme) said.set('scheme', scheme)
  if (accent) said.set('accent', accent.slice(1))
  const query = said.toString()
  return query && `?${query}`
}

/** As wide as a frame is where somebody says no width, in CSS px. */
export const embedWidth = 600
/** As high as what is in a frame, in CSS px: one episode, or a list; `null` for as wide as there is room. */
export function embedHeight(what: 'episode' | 'show', width: number | null): number {
  if (what === 'show') return 460
  if (width !== null && width >= 580) return 210
  // In a narrow one the player needs more lines; how narrow one is that is as wide as there is room, nobody knows.
  return width !== null && width >= 350 ? 300 : 370
}

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escaped = (words: string): string => words.replace(/[&<>"]/g, letter => entities[letter]!)

/** Makes a frame as high as what is in it says; where a page leaves it out, the height that it has suffices. */
const fitting = (address: string): string =>
  `<script>addEventListener("message",e=>{if(e.origin==="${new URL(address).origin}"&&e.data.playerHeight>0)for(const f of document.getElementsByTagName("iframe"))if(f.contentWindow===e.source)f.height=e.data.playerHeight})</script>`

/** What is put into another page: a frame of the player; of one that is as wide as there is room the height follows what is in it. */
export const embedCode = (
  address: string,
  title: string,
  { width, height }: { width: number | string; height: number },
): string =>
  `<iframe src="${escaped(address)}" title="${escaped(title)}" width="${width}" height="${height}" style="border:0;max-width:100%" loading="lazy" allow="autoplay"></iframe>${width === '100%' ? fitting(address) : ''}`
