import { expect, it } from 'vitest'
import { inNaturalOrder } from './order'

it('files come in the order of the numbers in their names', () => {
  const names = ['Ep 10 wax.mp3', 'ep 9 reeds.mp3', 'Ep 2.mp3', 'ep 02b.mp3', 'ep 1.mp3', 'A letter.mp3']
  expect(inNaturalOrder(names.map(name => ({ name }))).map(({ name }) => name)).toEqual([
    'A letter.mp3',
    'ep 1.mp3',
    'Ep 2.mp3',
    'ep 02b.mp3',
    'ep 9 reeds.mp3',
    'Ep 10 wax.mp3',
  ])
})
