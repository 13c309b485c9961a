import type { Writer } from '@contract/history'

/** Who wrote something, in words. */
export const whoIs = (by: Writer): string => (by === null ? 'the house' : by.isYou ? 'you' : by.email)

/** A name as it stands at the beginning of a line. */
export const sentence = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1)
