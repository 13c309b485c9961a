import { attributeIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const artworkAnswers: FeedRule = {
  name: 'artwork-answers',
  severity: 'error',
  says: 'The artwork does not answer with a picture.',
  rule: 'The address of the artwork answers with a JPEG or PNG.',
  source: 'itunes namespace, image (from memory)',
  ifItStays: 'Directories refuse the show; apps show a grey square.',
  fix: 'Choose the artwork again.',
  place: 'show.artwork',
  find: inChannel((channel, { answers }) => {
    const met = answers.get(attributeIn(channel, 'itunes:image', 'href'))
    return met && !met.picture ? (met.problem ?? `${met.status} ${met.contentType}`) : null
  }),
}
