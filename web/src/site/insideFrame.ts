/**
 * Keeps links of a public page in a frame of the studio from leading it away: those to pages of the show are told, all others do
 * nothing, as the page is looked at and not used.
 */
export function keepInside(frame: HTMLIFrameElement, base: string, open: (path: string) => void): void {
  frame.contentDocument?.addEventListener('click', event => {
    const link = (event.target as Element).closest<HTMLAnchorElement>('a[href]')
    if (!link || event.defaultPrevented || link.getAttribute('href')!.startsWith('#')) return
    event.preventDefault()
    const [address] = link.href.split('#')
    if (address === base) open('')
    else if (address!.startsWith(`${base}/`) && !/\.[a-z]+$/.test(address!)) open(address!.slice(base.length + 1))
  })
}
