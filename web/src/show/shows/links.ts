/** The stand-in listener's page for a feed; null where no listener runs. */
export function listenerLink(listenerAddress: string | null, feedAddress: string): string | null {
  return listenerAddress && `${listenerAddress}/?feed=${encodeURIComponent(feedAddress)}`
}
