import { expect, it } from 'vitest'
import { groupOf, personRoles } from './roles'

// podcast namespace, person: "host" and "cast" are what is meant where nothing is said (from memory).
it('every role has one group, and the host is of the cast', () => {
  expect(groupOf('Host')).toBe('Cast')
  expect(new Set(personRoles).size).toBe(personRoles.length)
  for (const role of personRoles) expect(groupOf(role)).toMatch(/\w/)
})
