import { describe, expect, it } from 'vitest'
import { addressPart, showChange } from './shows'

describe('a show’s address part', () => {
  it.each(['studio', 'api', 'media', 'feed', 'healthz'])('refuses the reserved word %s', word => {
    expect(addressPart.safeParse(word).error?.issues[0]?.message).toContain('keeps this word for itself')
  })
  it.each(['Bellows', 'a--b', '-a', 'a/b', ''])('refuses %j', part =>
    expect(addressPart.safeParse(part).success).toBe(false),
  )
  it('takes small letters, digits and hyphens', () =>
    expect(addressPart.parse('bellows-and-reeds-2')).toBe('bellows-and-reeds-2'))
})

describe('a change of a show', () => {
  it('refuses a category that the namespace does not know, and a subcategory of another one', () => {
    expect(showChange.safeParse({ version: 1, category: 'Boats' }).success).toBe(false)
    expect(showChange.safeParse({ version: 1, category: 'Arts', subcategory: 'Crafts' }).success).toBe(false)
    expect(showChange.safeParse({ version: 1, category: 'Leisure', subcategory: 'Crafts' }).success).toBe(true)
    expect(showChange.safeParse({ version: 1, category: 'toString' }).success).toBe(false)
  })
  it('says how long a name may be', () => {
    expect(showChange.safeParse({ version: 1, name: 'x'.repeat(10_000) }).error?.issues[0]?.message).toBe(
      'At most 120 characters.',
    )
  })
  it('refuses a zone that does not exist', () => {
    expect(showChange.safeParse({ version: 1, zone: 'Europe/Odrem' }).success).toBe(false)
  })
})
