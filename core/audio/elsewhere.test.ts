import { describe, expect, it } from 'vitest'
import { hostFindings, unreachable } from './elsewhere'
import { findingWords } from './findingWords'

const good = { answersRanges: true, redirects: 0, contentType: 'audio/mpeg' }

describe('the host of a file that lives elsewhere', () => {
  it('that does as apps like it gives nothing to say', () => expect(hostFindings(good)).toEqual([]))
  it.each([
    [{ answersRanges: false }, 'Its host does not answer byte ranges.'],
    [{ redirects: 1 }, 'The address leads on to another one.'],
    [{ redirects: 4 }, 'The address leads on 4 times.'],
    [{ contentType: 'text/plain' }, 'Its host calls it text/plain, not a sound.'],
    [{ contentType: null }, 'Its host calls it nothing at all, not a sound.'],
  ])('%j: %s', (change, says) =>
    expect(hostFindings({ ...good, ...change }).map(found => findingWords(found).says)).toEqual([says]),
  )
  it('that does not give the file must be mended', () => {
    const found = unreachable({
      title: 'There is nothing at this address',
      detail: 'It answers 404.',
      todo: 'Copy the address again.',
    })
    expect(found.severity).toBe('error')
    expect(findingWords(found)).toMatchObject({
      says: 'There is nothing at this address. It answers 404.',
      ifItStays: expect.stringContaining('Copy the address again.'),
    })
  })
})
