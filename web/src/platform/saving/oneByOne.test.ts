import { expect, it } from 'vitest'
import { oneByOne } from './oneByOne'

it('what two ask for while it is done is done one after the other, and never side by side', async () => {
  let unsent = 3
  let atWork = 0
  const seen: number[] = []
  const send = oneByOne(async () => {
    if (unsent === 0) return
    seen.push(++atWork)
    await Promise.resolve()
    unsent--
    atWork--
  })
  await Promise.all([send(), send(), send(), send()])
  expect(seen).toEqual([1, 1, 1])
})

it('who asks after a failure has it done anew, and only the one that failed hears of it', async () => {
  let tries = 0
  const send = oneByOne(async () => {
    if (++tries === 1) throw new Error('no line')
  })
  const answers = await Promise.allSettled([send(), send()])
  expect(answers.map(({ status }) => status)).toEqual(['rejected', 'fulfilled'])
  expect(tries).toBe(2)
})
