import { z } from 'zod'
import { listingStates } from '@contract/directories'
import { webAddress } from '@core/words/schemas'
import { serviceAt } from '../../platform/outside/service'

const hours = z.tuple([z.number(), z.number()])
const directory = z.object({
  id: z.string().regex(/^[a-z-]{1,40}$/),
  name: z.string().min(1).max(80),
  about: z.string().max(500),
  wants: z.array(z.object({ name: z.string(), words: z.string().max(300) })).max(20),
  everyHours: hours,
  reviewDays: hours.nullable(),
  address: webAddress,
})
export type DirectoryAnswer = z.infer<typeof directory>

const moment = z.iso.datetime().transform(text => new Date(text))
const state = z.object({
  state: z.enum(listingStates),
  since: moment,
  why: z.string().max(500).nullable(),
  sentTo: z.string().max(300).nullable(),
  isClosed: z.boolean(),
  listingAddress: webAddress.nullable(),
  fetchedAt: moment.nullable(),
  nextFetchAt: moment.nullable(),
  guids: z.array(z.string()),
})
export type SubmissionState = z.infer<typeof state>

/** A state names every episode of a show. */
const mostBytes = 5_000_000

/** Directories that shows are handed to, by the interface in stand-ins/directories/openapi.json. Each throws Trouble or Refused. */
export function directoriesAt(address: string) {
  const service = serviceAt(address, 'The directory')
  return {
    all: async (): Promise<DirectoryAnswer[]> => service.read(await service.ask('directories'), z.array(directory)),
    /** Hands a show in under a name of our own: handed in twice it is one submission. */
    async begin(directory: string, id: string, feedAddress: string): Promise<SubmissionState> {
      return service.read(
        await service.ask(`${directory}/submissions/${id}`, { method: 'PUT', json: { feedAddress }, mostBytes }),
        state,
      )
    },
    /** How it stands; null where the directory does not know it. */
    async look(directory: string, id: string, signal?: AbortSignal): Promise<SubmissionState | null> {
      const answer = await service.ask(`${directory}/submissions/${id}`, { signal, mostBytes })
      return answer.status === 404 ? null : service.read(answer, state)
    },
    async confirm(directory: string, id: string, code: string): Promise<SubmissionState> {
      return service.read(
        await service.ask(`${directory}/submissions/${id}/code`, { method: 'POST', json: { code }, mostBytes }),
        state,
      )
    },
  }
}
