import { describe, expect, it } from 'vitest'
import { podcastGuid } from './podcastGuid'

// The two values published with the podcast namespace's description of the guid element.
describe('podcast:guid', () => {
  it.each([
    ['https://podnews.net/rss', '9b024349-ccf0-5f69-a609-6b82873eab3c'],
    ['http://mp3s.nashownotes.com/pc20rss.xml', '917393e3-1b1e-5cef-ace4-edaa54e1f810'],
  ])('of %s is the published one', (address, guid) => expect(podcastGuid(address)).toBe(guid))

  it('is the same with and without scheme and trailing slash', () => {
    expect(podcastGuid('https://lake.example/show/feed.xml/')).toBe(podcastGuid('lake.example/show/feed.xml'))
  })
})
