/** Tells the page around a frame how high what is in it is, now and whenever that changes; the code for the frame listens. */
export function tellHeight(main: HTMLElement): void {
  const tell = (): void => {
    const end = main.lastElementChild!.getBoundingClientRect().bottom
    const room = parseFloat(getComputedStyle(main).paddingBottom)
    parent.postMessage({ playerHeight: Math.ceil(end + room) }, '*')
  }
  const sizes = new ResizeObserver(tell)
  for (const part of main.children) sizes.observe(part)
}
