/**
 * Keeps links of a public page in a frame of the studio from leading it away: those to pages of the show are told, where somebody
 * wants to know, and all others do nothing, as the page is looked at and not used.
 */
export function keepInside(
  frame: HTMLIFrameElement,
  show: { address: string; open: (path: string) => void } | null,
): void {
  frame.contentDocument?.addEventListener('click', event => {
    const link = (event.target as Element).closest<HTMLAnchorElement>('a[href]')
    if (!link || event.defaultPrevented || link.getAttribute('href')!.startsWith('#')) return
    event.preventDefault()
    const [address] = link.href.split('#')
    if (address === show?.address) show!.open('')
    else if (show && address!.startsWith(`${show.address}/`) && !/\.[a-z]+$/.test(address!))
      show.open(address!.slice(show.address.length + 1))
  })
}
