import type { SoundFormat } from '../../audio/sniff'
import { atAddresses, type FeedRule } from './rule'

/** What types say of what a file is. */
const types: readonly (readonly [form: SoundFormat, type: RegExp])[] = [
  ['mp3', /mpeg|mp3/i],
  ['m4a', /mp4|m4a|m4v|aac|quicktime/i],
  ['wav', /wav/i],
  ['flac', /flac/i],
  ['ogg', /ogg|opus|vorbis/i],
]

export const audioForm: FeedRule = {
  name: 'audio-form',
  severity: 'error',
  says: 'The audio is something else than the feed says.',
  rule: 'The type of an enclosure is what its file is.',
  source: 'RSS 2.0, enclosure sub-element of item; ISO/IEC 11172-3 and 14496-12 (how the files begin)',
  ifItStays: 'Apps that go by the type do not play it.',
  fix: 'Bring the audio again, or tell the type that it has.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ form, status }, { attributes: { type = '' } }) => {
    const wanted = types.find(([, pattern]) => pattern.test(type))?.[0]
    if (form === null || !wanted || form === wanted || (status !== 200 && status !== 206)) return null
    return `${type}, and it is ${form === 'text' ? 'text, such as a page' : form}`
  }),
}
