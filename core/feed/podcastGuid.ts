import { v5 as uuidV5 } from 'uuid'
import { withoutSlashesBehind } from '../address/slashes'

const podcastNamespace = 'ead4c236-bf58-58c6-a2c6-a6b28d128cb6'

/**
 * The podcast:guid of a show: UUID v5 of its feed address without scheme and trailing slashes,
 * in the namespace that the podcast namespace's description of `guid` gives.
 */
export function podcastGuid(feedAddress: string): string {
  return uuidV5(withoutSlashesBehind(feedAddress.replace(/^[a-z]+:\/\//i, '')), podcastNamespace)
}
