import { attributeIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const artworkForm: FeedRule = {
  name: 'artwork-form',
  severity: 'error',
  says: 'The artwork is no JPEG or PNG in the colours of screens, or something in it is transparent.',
  rule: 'JPEG or PNG, RGB, without transparency.',
  source: 'itunes namespace, image (from memory)',
  ifItStays: 'Directories refuse it, or show it in wrong colours.',
  fix: 'Save it as an RGB JPEG and choose it again.',
  place: 'show.artwork',
  find: inChannel((channel, { answers }) => {
    const picture = answers.get(attributeIn(channel, 'itunes:image', 'href'))?.picture
    if (!picture) return null
    const fits = /^(jpeg|png)$/.test(picture.format) && /^(srgb|rgb|rgb16)$/.test(picture.space)
    if (!fits) return `${picture.format}, ${picture.space}`
    return picture.isTransparent ? 'transparent' : null
  }),
}
