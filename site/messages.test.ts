import { describe, expect, it } from 'vitest'
import { personRoles } from '@core/people/roles'
import { siteLanguages } from '@core/site/languages'
import { partsOf, placesIn, pluralsIn } from '@core/words/messages.fixture'
import { type MessageKey, messages } from './messages'

const keys = Object.keys(messages.en) as MessageKey[]
describe.each(siteLanguages)('in %s', language => {
  it('there is every message, none is empty, and none is there that nobody says', () => {
    expect(Object.keys(messages[language])).toEqual(keys)
    expect(keys.filter(key => messages[language][key].trim() === '')).toEqual([])
  })

  it('each message has the values and tags that the English one has', () => {
    for (const key of keys)
      expect({ key, places: placesIn(messages[language][key], language) }).toEqual({
        key,
        places: placesIn(messages.en[key], 'en'),
      })
  })

  it('no tag has the name of a value, for one would stand in the place of the other', () => {
    for (const key of keys) {
      const places = placesIn(messages[language][key], language).map(place => place.slice(1, -1))
      expect({ key, names: new Set(places).size }).toEqual({ key, names: places.length })
    }
  })

  it('each plural has the forms that the language has (CLDR plural rules, by Intl.PluralRules)', () => {
    const forms = new Intl.PluralRules(language).resolvedOptions().pluralCategories
    // CLDR gives Romance languages a form for whole millions besides, which nothing here comes to.
    const needed = forms.filter(form => form !== 'many' || language === 'ar' || language === 'pl')
    for (const key of keys)
      for (const given of pluralsIn(partsOf(messages[language][key], language)))
        expect({ key, given: given.toSorted() }).toEqual({ key, given: needed.toSorted() })
  })

  it('its own words are not the English ones', () => {
    if (language === 'en') return
    const same = keys.filter(key => !key.startsWith('role.') && messages[language][key] === messages.en[key])
    // A few words are the same in several languages.
    expect(same.length).toBeLessThan(20)
  })
})

it('every role of the list has a name', () => {
  expect(personRoles.filter(role => !(`role.${role}` in messages.en))).toEqual([])
})
