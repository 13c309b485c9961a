import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inChannel } from './rule'

export const builtDate: FeedRule = {
  name: 'built-date',
  severity: 'warning',
  says: 'The date of the feed cannot be read.',
  rule: 'pubDate and lastBuildDate are dates as mail writes them.',
  source: 'RSS 2.0, pubDate and lastBuildDate; RFC 5322, section 3.3',
  ifItStays: 'Readers that go by it do not know that there is something new.',
  fix: 'Write it as Thu, 03 Dec 2026 05:00:00 +0000.',
  place: 'host',
  find: inChannel(channel =>
    ['pubDate', 'lastBuildDate'].map(name => textIn(channel, name)).find(date => date !== '' && !readDate(date)),
  ),
}
