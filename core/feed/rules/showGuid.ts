import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

export const showGuid: FeedRule = {
  name: 'show-guid',
  severity: 'note',
  says: 'The show has no permanent identifier.',
  rule: 'podcast:guid names the show whatever its address is: a UUID.',
  source: 'podcast namespace, guid',
  ifItStays: 'After a move apps cannot tell that it is the same show.',
  fix: 'Add one and never change it.',
  place: 'host',
  find: inChannel(channel => {
    const guid = textIn(channel, 'podcast:guid')
    return uuid.test(guid) ? null : guid
  }),
}
