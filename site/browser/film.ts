/** Shows a film in the page once it is wanted, in a frame that can do nothing to the page. */
export function film(place: HTMLElement): void {
  place.addEventListener('click', event => {
    const link = (event.target as Element).closest('a')
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey) return
    event.preventDefault()
    const frame = Object.assign(document.createElement('iframe'), {
      src: place.dataset.address,
      title: place.dataset.title,
      referrerPolicy: 'no-referrer',
      allow: 'fullscreen; picture-in-picture',
    })
    frame.setAttribute('sandbox', 'allow-scripts allow-same-origin allow-presentation')
    place.replaceChildren(frame)
    frame.focus()
  })
}
