import { artworkRule } from '../../show/artwork'
import { attributeIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const artworkSize: FeedRule = {
  name: 'artwork-size',
  severity: 'error',
  says: 'The artwork is not square, or not of the size that directories want.',
  rule: `Square, ${artworkRule.minPx} to ${artworkRule.maxPx} px.`,
  source: 'itunes namespace, image (from memory)',
  ifItStays: 'Directories refuse the show.',
  fix: 'Choose artwork of that size.',
  place: 'show.artwork',
  find: inChannel((channel, { answers }) => {
    const picture = answers.get(attributeIn(channel, 'itunes:image', 'href'))?.picture
    if (!picture) return null
    const { widthPx, heightPx } = picture
    const fits = widthPx === heightPx && widthPx >= artworkRule.minPx && widthPx <= artworkRule.maxPx
    return fits ? null : `${widthPx} × ${heightPx} px`
  }),
}
