import { describe, expect, it } from 'vitest'
import type { Sending } from './uploads'
import { episodeName, isArriving } from './names'

const sending = (state: Sending['state']): Record<string, Sending> => ({
  a: {
    id: 'a',
    episodeId: 'a',
    beginsIn: null,
    fileName: '03 night boat.mp3',
    bytes: 5,
    sentBytes: 0,
    pace: null,
    state,
    problem: null,
  },
})
const bare = { id: 'a', title: '', arriving: null, hasAudio: false }

describe('an episode without a title', () => {
  it('is called by the file that comes in for it, wherever it is listed and whoever sends it', () => {
    expect(episodeName(bare, sending('sending'))).toBe('03 night boat.mp3')
    expect(episodeName({ ...bare, arriving: '03 night boat.mp3' }, {})).toBe('03 night boat.mp3')
    expect(episodeName(bare, {})).toBe('Untitled episode')
    expect(episodeName({ ...bare, title: 'Night boat' }, sending('sending'))).toBe('Night boat')
  })
  it('does not lack audio while that is on its way', () => {
    expect(isArriving(bare, sending('queued'))).toBe(true)
    expect(isArriving({ ...bare, arriving: 'x.mp3' }, {})).toBe(true)
    expect(isArriving(bare, sending('refused'))).toBe(false)
    expect(isArriving({ ...bare, hasAudio: true, arriving: 'x.mp3' }, sending('sending'))).toBe(false)
    expect(isArriving(bare, {})).toBe(false)
  })
})
