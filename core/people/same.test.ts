import { expect, it } from 'vitest'
import type { Person } from '../episode/fields'
import { namesOfOne } from './same'

const person = (name: string, address: string | null = null): Person => ({ name, role: 'Guest', address })
const groups = (...people: Person[]): string[][] => namesOfOne(people).map(group => group.map(({ name }) => name))

it.each([
  ['initials', [person('T. Aldermoor'), person('Tove Aldermoor')], [['Tove Aldermoor', 'T. Aldermoor']]],
  ['accents and case', [person('odile marchand'), person('Odíle Marchand')], [['odile marchand', 'Odíle Marchand']]],
  [
    'one address',
    [person('Benno', 'https://lake.example/b'), person('Benno of the boats', 'https://lake.example/b')],
    [['Benno of the boats', 'Benno']],
  ],
  ['two people of a family', [person('Tove Aldermoor'), person('Benno Aldermoor')], []],
  ['one word that begins alike', [person('T'), person('Tove')], []],
  ['one in two roles', [person('Tove Aldermoor'), { ...person('Tove Aldermoor'), role: 'Host' }], []],
] as [string, Person[], string[][]][])('%s', (_name, people, found) => {
  expect(groups(...people)).toEqual(found)
})
