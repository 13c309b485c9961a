import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showLanguage: FeedRule = {
  name: 'show-language',
  severity: 'error',
  says: 'The show does not say its language.',
  rule: 'A channel says in which language it is, as a language tag.',
  source: 'RSS 2.0, language; itunes namespace, required tags (from memory); BCP 47, section 2.1',
  ifItStays: 'Directories do not know whom to show it to, and some refuse it.',
  fix: 'Choose the language of the show.',
  place: 'show.language',
  find: inChannel(channel => {
    const language = textIn(channel, 'language')
    return /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i.test(language) ? null : language
  }),
}
