import { isCategory } from '../categories'
import { all } from '../read'
import { type FeedRule, inChannel } from './rule'

export const knownCategory: FeedRule = {
  name: 'known-category',
  severity: 'error',
  says: 'The show has a category that is not on the list.',
  rule: 'Categories and their subcategories are those of the published list, letter by letter.',
  source: 'itunes namespace, category (from memory)',
  ifItStays: 'Directories cannot place it, or reject it.',
  fix: 'Choose one of the list.',
  place: 'show.category',
  find: inChannel(channel => {
    const wrong = all(channel, 'itunes:category').flatMap(({ attributes, children }) => {
      const category = attributes.text ?? ''
      const subcategories = children.filter(({ name }) => name === 'itunes:category')
      const names = subcategories.length > 0 ? subcategories.map(each => each.attributes.text ?? '') : [null]
      return names.filter(name => !isCategory(category, name)).map(name => (name ? `${category}, ${name}` : category))
    })
    return wrong[0]
  }),
}
