import { type Finding, finding } from './findings'

/**
 * What listening apps are given as it is, by its media type (RFC 3003, RFC 4337): its ending. A kind of file that is to be delivered, too,
 * is an entry here.
 */
const deliverables = {
  'audio/mpeg': { ending: 'mp3' },
  'audio/mp4': { ending: 'm4a' },
} as const

/** Of what is put together here, as a sound: it has no bytes that could be delivered as they are. */
export const mixType = 'audio/x-mix'

export type DeliverableType = keyof typeof deliverables
export const deliverableTypes = Object.keys(deliverables) as readonly DeliverableType[]

/** Whether listening apps can be given files of this type as they are. */
export const isDeliverable = (type: string): type is DeliverableType => Object.hasOwn(deliverables, type)

/** What the name of a delivered file ends with, without its dot. Throws where nothing of that type is delivered. */
export function endingOf(type: string): string {
  if (!isDeliverable(type)) throw new Error(`A file of type ${type} is not delivered.`)
  return deliverables[type].ending
}

/** What there is to say where a file could not be measured. */
export const unmeasured: Finding = finding('warning', 'unmeasured', {})

/** What there is to say about the form that a file would be delivered in. */
export function deliveryFindings({ type, channels }: { type: string; channels: number }): Finding[] {
  const found: Finding[] = []
  // What is put together here is finished before it goes out, whatever is to be said of it.
  if (!isDeliverable(type) && type !== mixType)
    found.push(finding('error', 'not-deliverable', { type }, { fix: 'finish' }))
  if (channels > 2) found.push(finding('warning', 'many-channels', { channels }, { fix: 'finish' }))
  return found
}
