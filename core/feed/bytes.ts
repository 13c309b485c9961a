import { decoderOf } from '../words/encodings'

/** What bytes of a feed say, and what about how they are written is not as it is told; null where it is. */
export interface FeedText {
  text: string
  fault: string | null
}

/**
 * Reads the bytes of a feed: by the byte order mark, by what HTTP says, by what the document says, in this order, else as UTF-8
 * (XML 1.0, section 4.3.3 and appendix F.2; RFC 7303, section 3).
 */
export function feedText(bytes: Uint8Array, contentType = ''): FeedText {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200))
  const marked = head.startsWith('\u00ef\u00bb\u00bf')
    ? 'utf-8'
    : head.startsWith('\u00ff\u00fe')
      ? 'utf-16le'
      : head.startsWith('\u00fe\u00ff')
        ? 'utf-16be'
        : null
  const sent = /charset=["']?([\w-]+)/i.exec(contentType)?.[1] ?? null
  const said = /^\s*<\?xml[^>]*?encoding=["']([\w-]+)["']/i.exec(head)?.[1] ?? null
  const name = marked ?? sent ?? said ?? 'utf-8'
  const decoder = decoderOf(name, { fatal: true })
  if (!decoder) return { text: lenient(bytes, 'utf-8'), fault: `said to be ${name}, which nobody knows` }
  try {
    const told = said === null ? null : decoderOf(said)?.encoding
    // A mark at the beginning goes before both.
    const differs = marked === null && sent !== null && told != null && told !== decoder.encoding
    return { text: decoder.decode(bytes), fault: differs ? `served as ${sent}, and says ${said} itself` : null }
  } catch {
    return { text: lenient(bytes, name), fault: `said to be ${name}, and there are bytes in it that are none` }
  }
}

const lenient = (bytes: Uint8Array, name: string): string => decoderOf(name)!.decode(bytes)
