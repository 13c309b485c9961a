import { IntlMessageFormat } from 'intl-messageformat'
import { describe, expect, it } from 'vitest'
import { personRoles } from '@core/people/roles'
import { siteLanguages } from '@core/site/languages'
import { type MessageKey, messages } from './messages'

type Part = ReturnType<IntlMessageFormat['getAst']>[number]
/** The kinds of parts, of the message format's parser (icu-messageformat-parser, TYPE). */
const [literal, argument, number, plural, pound, tag] = [0, 1, 2, 6, 7, 8]

const keys = Object.keys(messages.en) as MessageKey[]
const partsOf = (text: string, language: string): Part[] => new IntlMessageFormat(text, language).getAst()
const named = (parts: readonly Part[]): string[] =>
  parts.flatMap((part): string[] => {
    if (part.type === literal || part.type === pound) return []
    if ((part.type === argument || part.type === number) && 'value' in part) return [`{${part.value}}`]
    if (part.type === tag && 'children' in part) return [`<${part.value}>`, ...named(part.children)]
    if (part.type === plural && 'options' in part)
      return [`{${part.value}}`, ...Object.values(part.options).flatMap(({ value }) => named(value))]
    throw new Error(`A message has a part of kind ${part.type}, which translators were not told of.`)
  })
const placesIn = (text: string, language: string): string[] => [...new Set(named(partsOf(text, language)))].toSorted()
const pluralsIn = (parts: readonly Part[]): string[][] =>
  parts.flatMap(part =>
    part.type === plural && 'options' in part
      ? [Object.keys(part.options)]
      : part.type === tag && 'children' in part
        ? pluralsIn(part.children)
        : [],
  )

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
