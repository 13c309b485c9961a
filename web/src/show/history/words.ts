import type { Writer } from '@contract/history'
import { t } from './messages'

/** Who wrote something, in words. */
export const whoIs = (by: Writer): string => (by === null ? t('theHouse') : by.isYou ? t('you') : by.email)

/** A name as it stands at the beginning of a line. */
export const sentence = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1)
