const factor = 4
const taps = 16
const half = taps / 2

/**
 * The filter that tells a sound's values between its samples: for each place (1/4, 2/4, 3/4 of the way) 16 taps of a
 * Kaiser-windowed sinc, which is four times oversampling as ITU-R BS.1770-5 annex 2 asks.
 */
export const truePeakFilter: readonly number[] = Array.from({ length: factor - 1 }, (_, phase) => {
  const weights = Array.from({ length: taps }, (_weight, tap) => {
    const distance = tap - (half - 1) - (phase + 1) / factor
    return (Math.sin(Math.PI * distance) / (Math.PI * distance)) * kaiser(distance / half)
  })
  const sum = weights.reduce((total, weight) => total + weight, 0)
  return weights.map(weight => weight / sum)
}).flat()

/** No value between samples is larger than this many times the largest sample around it: the taps' magnitudes, summed. */
export const truePeakBound = Math.max(
  ...[0, 1, 2].map(phase =>
    truePeakFilter.slice(phase * taps, (phase + 1) * taps).reduce((sum, weight) => sum + Math.abs(weight), 0),
  ),
)

/** A Kaiser window (β = 5), 1 in the middle and near 0 at ±1. */
function kaiser(at: number): number {
  return Math.abs(at) >= 1 ? 0 : besselI0(5 * Math.sqrt(1 - at * at)) / besselI0(5)
}

function besselI0(x: number): number {
  let term = 1
  let sum = 1
  for (let k = 1; term > sum * 1e-12; k++) {
    term *= (x / 2 / k) ** 2
    sum += term
  }
  return sum
}
