import { type Finding, finding } from './findings'
import { isDeliverable } from './recipe'

/** What there is to say where a file could not be measured. */
export const unmeasured: Finding = finding('worth mending', 'unmeasured', {})

/** What there is to say about the form that a file would be delivered in. */
export function deliveryFindings({ type, channels }: { type: string; channels: number }): Finding[] {
  const found: Finding[] = []
  if (!isDeliverable(type)) found.push(finding('must mend', 'not-deliverable', { type }, { mend: 'finish' }))
  if (channels > 2) found.push(finding('worth mending', 'many-channels', { channels }, { mend: 'finish' }))
  return found
}
