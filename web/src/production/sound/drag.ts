/**
 * Follows a pointer that has pressed a handle until it lets go: `follow` hears where along the box it is, from 0 to 1 and
 * beyond, and `end` whether it has moved at all, and the last of the pointer.
 */
export function dragAlong(
  event: PointerEvent,
  box: Element,
  follow: (share: number) => void,
  end: (hasMoved: boolean, last: PointerEvent) => void = () => undefined,
): void {
  const handle = event.currentTarget as HTMLElement
  const { left, width } = box.getBoundingClientRect()
  const over = new AbortController()
  let hasMoved = false
  handle.setPointerCapture(event.pointerId)
  handle.addEventListener(
    'pointermove',
    at => {
      // A press that trembles is a press.
      if (!hasMoved && Math.abs(at.clientX - event.clientX) < 3) return
      hasMoved = true
      follow((at.clientX - left) / width)
    },
    { signal: over.signal },
  )
  for (const ending of ['pointerup', 'pointercancel'] as const)
    handle.addEventListener(
      ending,
      last => {
        over.abort()
        end(hasMoved, last)
      },
      { signal: over.signal },
    )
}

const steps: Readonly<Record<string, number>> = {
  ArrowLeft: -100,
  ArrowDown: -100,
  ArrowRight: 100,
  ArrowUp: 100,
  PageDown: -1000,
  PageUp: 1000,
}
/** By how much a key moves a handle: a tenth of a second, or a whole one; undefined for other keys. */
export const stepMs = ({ key }: KeyboardEvent): number | undefined => steps[key]
