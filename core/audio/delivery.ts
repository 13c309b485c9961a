import type { Finding } from './findings'
import { formatName } from './formats'
import { isDeliverable } from './recipe'

/** What there is to say where a file could not be measured. */
export const unmeasured: Finding = {
  weight: 'worth mending',
  code: 'unmeasured',
  says: 'The sound could not be measured.',
  rule: 'Measuring hears every sample; where it stops, apps may stop too (common practice, no source).',
  ifItStays: 'Its loudness is not known, and it cannot be finished. Listen to all of it, or export it again.',
  mend: null,
  places: [],
}

/** What there is to say about the form that a file would be delivered in. */
export function deliveryFindings({ type, channels }: { type: string; channels: number }): Finding[] {
  const found: Finding[] = []
  if (!isDeliverable(type))
    found.push({
      weight: 'must mend',
      code: 'not-deliverable',
      says: `${formatName(type)} cannot go out as it is.`,
      rule: 'Listening apps play MP3, and most of them M4A (common practice, no source).',
      ifItStays: 'It is kept here, and cannot be released. Finishing encodes it.',
      mend: 'finish',
      places: [],
    })
  if (channels > 2)
    found.push({
      weight: 'worth mending',
      code: 'many-channels',
      says: `It has ${channels} channels.`,
      rule: 'Listening apps expect one or two (common practice, no source).',
      ifItStays: 'Some apps play only some of the channels. Finishing mixes them to two.',
      mend: 'finish',
      places: [],
    })
  return found
}
