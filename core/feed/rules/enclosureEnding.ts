import { type FeedRule, inEach } from './rule'

const endings: Readonly<Record<string, RegExp>> = {
  mp3: /mpeg|mp3/,
  m4a: /m4a|mp4|aac/,
  mp4: /mp4|m4v|m4a/,
  ogg: /ogg|opus/,
  wav: /wav/,
  flac: /flac/,
  mov: /quicktime|mp4/,
}

export const enclosureEnding: FeedRule = {
  name: 'enclosure-ending',
  severity: 'warning',
  says: 'The address of the audio ends otherwise than its type says.',
  rule: 'Name and type of a file agree.',
  source: 'itunes namespace, enclosure, “the file extension” (from memory)',
  ifItStays: 'Apps that go by the name do not play it.',
  fix: 'Give the file the right extension, or the right type.',
  place: 'host',
  find: inEach('enclosure', ({ attributes: { url = '', type = '' } }) => {
    const ending = /\.([a-z0-9]{3,4})(?:[?#]|$)/i.exec(url)?.[1]?.toLowerCase()
    const fitting = ending && endings[ending]
    return fitting && /^(audio|video)\//i.test(type) && !fitting.test(type.toLowerCase()) ? `.${ending}, ${type}` : null
  }),
}
