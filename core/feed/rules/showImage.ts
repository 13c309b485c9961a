import { one, textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showImage: FeedRule = {
  name: 'show-image',
  severity: 'warning',
  says: 'The image of the channel is not complete.',
  rule: 'An image has url, title and link.',
  source: 'RSS 2.0, image sub-element of channel',
  ifItStays: 'Readers that go by RSS alone show no picture.',
  fix: 'Add what is missing.',
  place: 'host',
  find: inChannel(channel => {
    const image = one(channel, 'image')
    const missing = image && ['url', 'title', 'link'].filter(name => !textIn(image, name))
    return missing && missing.length > 0 ? `no ${missing.join(', no ')}` : null
  }),
}
