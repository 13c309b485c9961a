import type { Preview } from '@contract/preview'
import { clock } from '@core/words/amounts'
import type { Episode } from '../../show/episodes/models'
import type { Tags } from '../../media/files/tags'
import type { Show } from '../../show/shows/models'

/** The tags of a file as they are read in it, each with its frame (id3.org, ID3v2.3.0, section 4, and its chapter frame addendum). */
export function tagLines(tags: Tags, { extras, artworkId }: Episode, { titlePattern }: Show): Preview['tags'] {
  const line = (frame: string, name: string, value: string, isInherited = false) => ({
    frame,
    name,
    value,
    isInherited,
  })
  return [
    line('TIT2', 'Title', tags.title, titlePattern !== '{title}'),
    line('TIT3', 'Subtitle', tags.subtitle),
    line('TPE1', 'Artist', tags.artist, extras.author === null),
    line('TALB', 'Album', tags.album, true),
    line('TRCK', 'Track', tags.track === null ? '' : String(tags.track)),
    line('TYER, TDAT', 'Date', tags.date),
    line('TCON', 'Genre', tags.genre),
    line('COMM', 'Comment', tags.comment),
    line('TXXX', 'Keywords', tags.keywords.join('; ')),
    line('TXXX', 'People', tags.people.join('; ')),
    line('WOAS', 'Address', tags.webAddress, true),
    line('APIC', 'Artwork', 'Front cover', artworkId === null),
    ...tags.chapters.map(({ fromMs, title }) => line('CHAP', clock(fromMs), title)),
  ].filter(({ value }) => value !== '')
}
