/** A file that is sent from here; one that lives elsewhere stands at an address of its own. */
const ours = /\/media\/[\da-f-]{36}\/[\w.-]+$/

/** The address of a sound for a player of ours, which says where it stands, so that what is fetched is told apart from what apps fetch. */
export const playedAddress = (address: string, from: 'page' | 'frame'): string =>
  ours.test(address) ? `${address}?from=${from}` : address
