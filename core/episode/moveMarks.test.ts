import { expect, it } from 'vitest'
import { moveMarks } from './moveMarks'

it('chapters stay in order, and a soundbite of which too little is left goes', () => {
  /** The halves of a minute change places. */
  const to = (ms: number) => (ms < 30_000 ? ms + 30_000 : ms - 30_000)
  const chapter = { title: '', address: null, pictureId: null, isListed: true }
  expect(
    moveMarks(
      {
        chapters: [
          { id: 'a', fromMs: 1_000, ...chapter },
          { id: 'b', fromMs: 31_000, ...chapter },
        ],
        soundbites: [
          { id: 'a', fromMs: 40_000, toMs: 50_000, title: '' },
          { id: 'b', fromMs: 29_000, toMs: 32_000, title: '' },
        ],
      },
      to,
    ),
  ).toMatchObject({
    chapters: [
      { id: 'b', fromMs: 1_000 },
      { id: 'a', fromMs: 31_000 },
    ],
    soundbites: [{ id: 'a', fromMs: 10_000, toMs: 20_000 }],
  })
})

it('what is not in the new sound keeps its time', () => {
  const soundbites = [{ id: 'a', fromMs: 40_000, toMs: 50_000, title: '' }]
  expect(moveMarks({ chapters: null, soundbites }, () => null)).toEqual({ chapters: null, soundbites })
})
