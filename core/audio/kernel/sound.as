// The inner loops of the sound meter and of the limiter, in AssemblyScript, compiled to WebAssembly with 128-bit vectors at build time.
// Sound stands interleaved: a margin of 8 frames, the block, and a margin of 8 frames.

const marginFrames: i32 = 8
const blockFrames: i32 = 8192
const windowFrames: i32 = 64
const taps: i32 = 16
const phases: i32 = 3

const sound = memory.data((blockFrames + 2 * marginFrames) * 2 * 4, 16)
/** For each window: lowest left, lowest right, highest left, highest right. */
const extremes = memory.data((blockFrames / windowFrames) * 4 * 4, 16)
/** For each phase its taps. */
const filter = memory.data(phases * taps * 4, 16)
/** For each frame of the block the largest magnitude at it and up to the next one. */
const peaks = memory.data((blockFrames + 4) * 4, 16)
/** b0 b1 b2 a1 a2 of the first filter, a1 a2 of the second. */
const weighting = memory.data(7 * 8, 16)

export function soundAt(): usize { return sound }
export function extremesAt(): usize { return extremes }
export function peaksAt(): usize { return peaks }
export function filterAt(): usize { return filter }
export function weightingAt(): usize { return weighting }

let p1 = f64x2.splat(0)
let p2 = f64x2.splat(0)
let q1 = f64x2.splat(0)
let q2 = f64x2.splat(0)

// @ts-ignore: decorator
@inline function frameAt(place: i32, channels: i32): usize { return sound + (<usize>((marginFrames + place) * channels) << 2) }

/** Sum of the squared K-weighted samples of both channels from frame `from` to before `to`; two biquads, direct form II transposed. */
export function energy(from: i32, to: i32, channels: i32): f64 {
  const b0 = f64x2.splat(load<f64>(weighting))
  const b1 = f64x2.splat(load<f64>(weighting, 8))
  const b2 = f64x2.splat(load<f64>(weighting, 16))
  const a1 = f64x2.splat(load<f64>(weighting, 24))
  const a2 = f64x2.splat(load<f64>(weighting, 32))
  const c1 = f64x2.splat(load<f64>(weighting, 40))
  const c2 = f64x2.splat(load<f64>(weighting, 48))
  const minusTwo = f64x2.splat(-2)
  let sum = f64x2.splat(0)
  let at = frameAt(from, channels)
  const step = <usize>channels << 2
  for (let i = from; i < to; i++) {
    const x = f64x2.promote_low_f32x4(channels == 2 ? v128.load64_zero(at) : v128.load32_zero(at))
    at += step
    const y = f64x2.add(f64x2.mul(b0, x), p1)
    p1 = f64x2.add(f64x2.sub(f64x2.mul(b1, x), f64x2.mul(a1, y)), p2)
    p2 = f64x2.sub(f64x2.mul(b2, x), f64x2.mul(a2, y))
    const z = f64x2.add(y, q1)
    q1 = f64x2.add(f64x2.sub(f64x2.mul(minusTwo, y), f64x2.mul(c1, z)), q2)
    q2 = f64x2.sub(y, f64x2.mul(c2, z))
    sum = f64x2.add(sum, f64x2.mul(z, z))
  }
  p1 = settled(p1)
  p2 = settled(p2)
  q1 = settled(q1)
  q2 = settled(q2)
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1)
}

/** Values this small stand for silence; left alone they become denormal and slow. */
function settled(value: v128): v128 {
  return v128.and(value, f64x2.gt(f64x2.abs(value), f64x2.splat(1e-30)))
}

/** Finds the extremes of each window of the first `frames` frames; frames behind them must be zero up to the window's end. */
export function scan(frames: i32, channels: i32): void {
  let out = extremes
  for (let place = 0; place < frames; place += windowFrames) {
    let low = f32x4.splat(0)
    let high = f32x4.splat(0)
    let at = frameAt(place, channels)
    const end = frameAt(place + windowFrames, channels)
    for (; at < end; at += 16) {
      const values = v128.load(at)
      low = f32x4.pmin(low, values)
      high = f32x4.pmax(high, values)
    }
    const lows = f32x4.pmin(low, v128.shuffle<f32>(low, low, 2, 3, 0, 1))
    const highs = f32x4.pmax(high, v128.shuffle<f32>(high, high, 2, 3, 0, 1))
    v128.store(out, v128.shuffle<f32>(lows, highs, 0, 1, 4, 5))
    out += 16
  }
}

// @ts-ignore: decorator
@inline function windowPeak(index: i32): f32 {
  const found = f32x4.abs(v128.load(extremes + (<usize>index << 4)))
  return max(max(f32x4.extract_lane(found, 0), f32x4.extract_lane(found, 1)), max(f32x4.extract_lane(found, 2), f32x4.extract_lane(found, 3)))
}

function marginPeak(place: i32, channels: i32): f32 {
  let most: f32 = 0
  const end = frameAt(place + marginFrames, channels)
  for (let at = frameAt(place, channels); at < end; at += 4) most = max(most, abs(load<f32>(at)))
  return most
}

/**
 * The largest magnitude at samples and between them in the first `frames` frames, or `known` where that is larger.
 * A window is only looked into between its samples where `bound` times the largest sample in and around it is more
 * than what is known; no value between samples can be larger.
 */
export function truePeak(frames: i32, channels: i32, known: f32, bound: f32): f32 {
  const windows = (frames + windowFrames - 1) / windowFrames
  let before = marginPeak(-marginFrames, channels)
  let here = windowPeak(0)
  for (let index = 0; index < windows; index++) {
    const after = index + 1 < windows ? windowPeak(index + 1) : marginPeak(frames, channels)
    known = max(known, here)
    if (max(max(before, here), after) * bound > known) known = between(index * windowFrames, min(frames, (index + 1) * windowFrames), channels, known)
    before = here
    here = after
  }
  return known
}

/** The largest magnitudes between four interleaved samples and those that follow them in their channels. */
// @ts-ignore: decorator
@inline function betweenAt(at: usize, step: usize): v128 {
  let most = f32x4.splat(0)
  for (let phase = 0; phase < phases; phase++) {
    let weight = filter + (<usize>phase * taps << 2)
    let value = f32x4.splat(0)
    let tap = at - 7 * step
    for (let n = 0; n < taps; n++) {
      value = f32x4.add(value, f32x4.mul(v128.load32_splat(weight), v128.load(tap)))
      weight += 4
      tap += step
    }
    most = f32x4.pmax(most, f32x4.abs(value))
  }
  return most
}

/** The largest magnitude between samples from frame `from` to before `to`. */
function between(from: i32, to: i32, channels: i32, known: f32): f32 {
  let most = f32x4.splat(known)
  const step = <usize>channels << 2
  const end = frameAt(to, channels)
  for (let at = frameAt(from, channels); at < end; at += 16) most = f32x4.pmax(most, betweenAt(at, step))
  return max(max(f32x4.extract_lane(most, 0), f32x4.extract_lane(most, 1)), max(f32x4.extract_lane(most, 2), f32x4.extract_lane(most, 3)))
}

/** Writes for each frame from `from` to before `to` the largest magnitude at it and up to the next one, over all channels. */
export function peaksOf(from: i32, to: i32, channels: i32): void {
  const step = <usize>channels << 2
  const end = frameAt(to, channels)
  let out = peaks + (<usize>from << 2)
  for (let at = frameAt(from, channels); at < end; at += 16) {
    const found = f32x4.pmax(betweenAt(at, step), f32x4.abs(v128.load(at)))
    if (channels == 1) {
      v128.store(out, found)
      out += 16
    } else {
      const both = f32x4.pmax(found, v128.shuffle<f32>(found, found, 1, 0, 3, 2))
      store<f32>(out, f32x4.extract_lane(both, 0))
      store<f32>(out, f32x4.extract_lane(both, 2), 4)
      out += 8
    }
  }
}

/** Whether left and right differ anywhere in the first `frames` frames by more than `most`; for two channels. */
export function sidesDiffer(frames: i32, most: f32): bool {
  const limit = f32x4.splat(most)
  const end = frameAt(frames, 2)
  for (let at = frameAt(0, 2); at < end; at += 16) {
    const values = v128.load(at)
    const swapped = v128.shuffle<f32>(values, values, 1, 0, 3, 2)
    if (v128.any_true(f32x4.gt(f32x4.abs(f32x4.sub(values, swapped)), limit))) return true
  }
  return false
}

/** Sum over the first `frames` frames of what left and right have in common: their product, twice; for two channels. */
export function common(frames: i32): f64 {
  let sum: f64 = 0
  const end = frameAt(frames, 2)
  for (let at = frameAt(0, 2); at < end; at += 8) sum += <f64>load<f32>(at) * <f64>load<f32>(at, 4)
  return 2 * sum
}

/** Sum of the squared samples of the first `frames` frames. */
export function power(frames: i32, channels: i32): f64 {
  let sum: f64 = 0
  const end = frameAt(frames, channels)
  for (let at = frameAt(0, channels); at < end; at += 4) sum += <f64>load<f32>(at) * <f64>load<f32>(at)
  return sum
}
