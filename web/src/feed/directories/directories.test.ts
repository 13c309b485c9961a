import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { DirectoryList } from '@contract/directories'
import { api } from '../../platform/api'
import { NoAnswer } from '../../platform/api/client'
import { useDirectories } from './directories'

const listOf = (feedAddress: string): DirectoryList => ({
  problem: null,
  feedAddress,
  released: 0,
  directories: [],
  own: [],
})

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => void vi.restoreAllMocks())

it('the answer for a show that was left does not stand over that of the one that is open', async () => {
  const store = useDirectories()
  const answers: ((list: DirectoryList) => void)[] = []
  vi.spyOn(api, 'directories').mockImplementation(() => new Promise(resolve => answers.push(resolve)))
  const left = store.load('one')
  const open = store.load('other')
  answers[1]!(listOf('other'))
  answers[0]!(listOf('one'))
  await Promise.all([left, open])
  expect(store.list!.feedAddress).toBe('other')
})

it('what cannot be had when news comes is thrown, so that it is asked for again, and is no trouble any more once it is had', async () => {
  const store = useDirectories()
  const away = new NoAnswer('Nobody answers.')
  vi.spyOn(api, 'directories').mockRejectedValueOnce(away).mockRejectedValueOnce(away).mockResolvedValue(listOf('one'))
  await store.load('one')
  expect(store.problem).toMatchObject({ at: null })
  await expect(store.refresh('one')).rejects.toBe(away)
  await store.refresh('one')
  expect(store.problem).toBeNull()
  expect(store.list!.feedAddress).toBe('one')
})
