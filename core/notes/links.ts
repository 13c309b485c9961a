import { isWebAddress } from '../address/web'
import { type Link } from '../episode/fields'
import { trimmed } from '../words/line'

const anAddress = /https?:\/\/\S+|www\.\S+/i

/** Links out of lines such as `The list, https://lake.example/list`; lines without an address are told apart. */
export function readLinks(pasted: string): { links: Link[]; unread: string[] } {
  const links = new Map<string, Link>()
  const unread: string[] = []
  for (const line of pasted
    .split('\n')
    .map(each => each.trim())
    .filter(Boolean)) {
    const match = anAddress.exec(line)
    const found = trimmed(match?.[0] ?? '', ')]>,.;:')
    const address = /^www\./i.test(found) ? `https://${found}` : found
    if (!match || !isWebAddress(address)) unread.push(line)
    else {
      const around = [line.slice(0, match.index), line.slice(match.index + found.length)].map(bare).filter(Boolean)
      links.set(address, { words: around.join(' ').slice(0, 300), address })
    }
  }
  return { links: [...links.values()], unread }
}

/** Words without what lists and sentences put around them. */
const bare = (words: string): string => trimmed(words, ' \t\r,;:.–—|()[]<>•*-')
