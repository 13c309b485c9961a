/** Bytes of a file, both ends included. */
export type Span = readonly [first: number, last: number]

/** So many pieces of a file are told apart for one listener; who fetches it in more that never meet is not believed. */
export const mostSpans = 64

/**
 * Spans in their order, none of which meets another, with one more put to them: what overlaps it or touches it becomes one. A
 * further one that meets none is left out where there are {@link mostSpans} already.
 */
export function withSpan(spans: readonly Span[], [first, last]: Span): readonly Span[] {
  if (last < first) return spans
  const from = spans.findIndex(([, end]) => end >= first - 1)
  const before = from < 0 ? spans : spans.slice(0, from)
  const behind = from < 0 ? [] : spans.slice(from)
  const met = behind.filter(([start]) => start <= last + 1)
  if (met.length === 0 && spans.length >= mostSpans) return spans
  return [
    ...before,
    [Math.min(first, ...met.map(([start]) => start)), Math.max(last, ...met.map(([, end]) => end))],
    ...behind.slice(met.length),
  ]
}

/** How many bytes of a span they cover. */
export const coveredBytes = (spans: readonly Span[], [first, last]: Span): number =>
  spans.reduce((sum, [start, end]) => sum + Math.max(0, Math.min(end, last) - Math.max(start, first) + 1), 0)
