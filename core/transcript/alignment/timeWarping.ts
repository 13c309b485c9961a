import { dimensions, type Features } from './features'

/** Where each frame of a script is in a sound, and how alike the two are there, in spreads above the usual; 0 where the script goes on alone. */
export interface Alignment {
  /** For each frame of the script the frame of the sound. */
  places: Int32Array
  alike: Float32Array
}

interface Ends {
  /** Whether the sound may begin before the script does, and whether it may go on behind it. */
  isOpen: boolean
  isOpenBehind: boolean
}

/**
 * Lays a script over a sound by dynamic time warping within a band (Sakoe and Chiba 1978, from memory): first roughly over
 * all of both, then finely around what was found. Where only one of the two has something it goes on alone, at a price.
 */
export function align(script: Features, sound: Features, ends: Ends): Alignment {
  const factor = Math.max(1, Math.ceil(Math.max(script.count, sound.count) / mostCoarse))
  const [coarseScript, coarseSound] = [coarser(script, factor), coarser(sound, factor)]
  const coarseBand = bandAround(
    linear(coarseScript.count, coarseSound.count),
    Math.max(200, Math.ceil(Math.max(coarseScript.count, coarseSound.count) * 0.2)),
    coarseSound.count,
  )
  const coarse = warp(coarseScript, coarseSound, coarseBand, ends)
  if (factor === 1) return coarse
  const places = Int32Array.from({ length: script.count }, (_each, at) => {
    const exact = at / factor
    const [low, high] = [
      Math.min(coarseScript.count - 1, Math.floor(exact)),
      Math.min(coarseScript.count - 1, Math.floor(exact) + 1),
    ]
    return Math.round(
      (coarse.places[low]! + (coarse.places[high]! - coarse.places[low]!) * (exact - Math.floor(exact))) * factor,
    )
  })
  return warp(script, sound, bandAround(places, fineBand, sound.count), ends)
}
const mostCoarse = 9000
const fineBand = 60

const linear = (script: number, sound: number): Int32Array =>
  Int32Array.from({ length: script }, (_each, at) => Math.round((at / Math.max(1, script - 1)) * (sound - 1)))

/** Which frames of the sound are tried for each frame of the script. */
interface Band {
  from: Int32Array
  width: Int32Array
  /** Where the cells of each frame begin among all. */
  offset: Float64Array
  cells: number
  widest: number
}

/** So far around each place; where the way leaps, all of the leap. */
function bandAround(places: Int32Array, reach: number, count: number): Band {
  const from = places.map((place, at) => Math.max(0, Math.min(place, places[at - 1] ?? place) - reach))
  const width = places.map(
    (place, at) => Math.min(count, Math.max(place, places[at + 1] ?? place) + reach + 1) - from[at]!,
  )
  const offset = new Float64Array(places.length)
  let cells = 0
  width.forEach((each, at) => {
    offset[at] = cells
    cells += each
  })
  return { from, width, offset, cells, widest: width.reduce((most, each) => Math.max(most, each), 0) }
}

/** Means of so many frames each. */
function coarser({ values, count, levelsDb }: Features, factor: number): Features {
  if (factor === 1) return { values, count, levelsDb }
  const fewer = Math.ceil(count / factor)
  const means = new Float32Array(fewer * dimensions)
  for (let at = 0; at < fewer; at++) {
    const end = Math.min(count, (at + 1) * factor)
    for (let from = at * factor; from < end; from++)
      for (let dimension = 0; dimension < dimensions; dimension++)
        means[at * dimensions + dimension]! += values[from * dimensions + dimension]! / (end - at * factor)
  }
  return { values: means, count: fewer, levelsDb }
}

/** How a way comes to a frame: both go on alike, one of them twice as fast, or one alone. */
const [both, soundFast, scriptFast, scriptAlone, soundAlone] = [0, 1, 2, 3, 4]
const stepBits = 7
/** Of a stretch that only one of the two has, whether it was one already. */
const [soundGoesOn, scriptGoesOn] = [8, 16]

/**
 * What ways cost, in spreads of what unlike frames differ by; a frame is alike where it differs by less than so much below
 * the usual. Found by trying on speech with known times.
 */
const alikeBelow = 0.2
const fastCost = 0.3
/** To begin a stretch that only one of the two has, and each frame of it: one long one is likelier than many short ones. */
const gapCost = 0.5
const scriptCost = 0.2
const soundCost = 0.1

function warp(script: Features, sound: Features, band: Band, { isOpen, isOpenBehind }: Ends): Alignment {
  const steps = new Uint8Array(band.cells)
  const rows = [0, 1, 2].map(() => new Float32Array(band.widest)) as [Float32Array, Float32Array, Float32Array]
  const { ofScript, ofSound, spread } = usualUnlike(script, sound)
  const { values: ones } = script
  const { values: others } = sound
  const unlikeAt = (i: number, j: number): number => {
    let sum = 0
    let other = j * dimensions
    const end = (i + 1) * dimensions
    for (let one = i * dimensions; one < end; one++, other++) {
      const difference = ones[one]! - others[other]!
      sum += difference * difference
    }
    return Math.sqrt(sum)
  }
  /** By how much two frames are more alike than either is to whatever else there is. */
  const likeness = (i: number, j: number): number => (ofScript[i]! + ofSound[j]! - unlikeAt(i, j)) / spread - alikeBelow
  let scriptGaps = new Float32Array(band.widest).fill(-Infinity)
  let gapsBefore = new Float32Array(band.widest).fill(-Infinity)
  for (let i = 0; i < script.count; i++) {
    const row = rows[i % 3]!
    const one = rows[(i + 2) % 3]!
    const two = rows[(i + 1) % 3]!
    const from = band.from[i]!
    const moved = i < 1 ? 0 : from - band.from[i - 1]!
    const movedTwice = i < 2 ? 0 : from - band.from[i - 2]!
    const width = band.width[i]!
    const widthOne = i < 1 ? 0 : band.width[i - 1]!
    const widthTwo = i < 2 ? 0 : band.width[i - 2]!
    const offset = band.offset[i]!
    let soundGap = -Infinity
    for (let k = 0; k < width; k++) {
      let most = i === 0 && (isOpen || from + k === 0) ? 0 : -Infinity
      let step = both
      const above = k + moved
      if (i > 0) {
        if (above >= 1 && above <= widthOne && one[above - 1]! > most) most = one[above - 1]!
        if (above >= 2 && above <= widthOne + 1 && one[above - 2]! - fastCost > most) {
          most = one[above - 2]! - fastCost
          step = soundFast
        }
        const aboveTwice = k + movedTwice
        if (i > 1 && aboveTwice >= 1 && aboveTwice <= widthTwo && two[aboveTwice - 1]! - fastCost > most) {
          most = two[aboveTwice - 1]! - fastCost
          step = scriptFast
        }
      }
      if (most > -Infinity) most += likeness(i, from + k)
      let flags = 0
      let scriptGap = -Infinity
      if (i > 0 && above >= 0 && above < widthOne) {
        scriptGap = one[above]! - gapCost
        if (gapsBefore[above]! - scriptCost > scriptGap) {
          scriptGap = gapsBefore[above]! - scriptCost
          flags |= scriptGoesOn
        }
      }
      scriptGaps[k] = scriptGap
      if (k > 0) {
        const opened = row[k - 1]! - gapCost
        soundGap -= soundCost
        if (soundGap >= opened) flags |= soundGoesOn
        else soundGap = opened
      }
      if (scriptGap > most) {
        most = scriptGap
        step = scriptAlone
      }
      if (soundGap > most) {
        most = soundGap
        step = soundAlone
      }
      row[k] = most
      steps[offset + k] = step | flags
    }
    ;[scriptGaps, gapsBefore] = [gapsBefore, scriptGaps]
  }
  const last = rows[(script.count - 1) % 3]!
  const lastWidth = band.width[script.count - 1]!
  let k = isOpenBehind ? mostAt(last, lastWidth) : lastWidth - 1
  let i = script.count - 1
  const places = new Int32Array(script.count)
  const alike = new Float32Array(script.count)
  let state = both
  for (;;) {
    const j = band.from[i]! + k
    places[i] = j
    const told = steps[band.offset[i]! + k]!
    const step = state === both ? told & stepBits : state
    if (step === soundAlone) {
      state = told & soundGoesOn ? soundAlone : both
      k--
      continue
    }
    if (step === scriptAlone) state = told & scriptGoesOn ? scriptAlone : both
    else alike[i] = likeness(i, j)
    if (i === 0) break
    if (step === scriptFast && i > 1) {
      places[i - 1] = j
      alike[i - 1] = alike[i]!
      k += band.from[i]! - band.from[i - 2]! - 1
      i -= 2
    } else {
      const moved = band.from[i]! - band.from[i - 1]!
      k += step === both ? moved - 1 : step === soundFast ? moved - 2 : moved
      i--
    }
  }
  return { places, alike }
}

/**
 * How unlike each frame is to frames of the other that it has nothing to do with: what lies in the middle of everything,
 * as music can, is not very unlike to anything, and alike to nothing.
 */
function usualUnlike(
  script: Features,
  sound: Features,
): { ofScript: Float32Array; ofSound: Float32Array; spread: number } {
  const ofScript = meansAgainst(script, sound)
  const ofSound = meansAgainst(sound, script)
  const usual = ofScript.means.reduce((sum, mean) => sum + mean, 0) / script.count
  // What both means have in common is counted once.
  return { ofScript: ofScript.means, ofSound: ofSound.means.map(mean => mean - usual), spread: ofScript.spread }
}

const compared = 60

function meansAgainst(one: Features, other: Features): { means: Float32Array; spread: number } {
  const means = new Float32Array(one.count)
  let [squares, variance] = [0, 0]
  for (let at = 0; at < one.count; at++) {
    let sum = 0
    squares = 0
    for (let pick = 0; pick < compared; pick++) {
      const place = Math.floor(((pick + 0.5) * other.count) / compared) * dimensions
      let unlike = 0
      for (let which = 0; which < dimensions; which++) {
        const difference = one.values[at * dimensions + which]! - other.values[place + which]!
        unlike += difference * difference
      }
      sum += Math.sqrt(unlike)
      squares += unlike
    }
    means[at] = sum / compared
    variance += squares / compared - means[at]! ** 2
  }
  return { means, spread: Math.sqrt(Math.max(1e-6, variance / one.count)) }
}

function mostAt(row: Float32Array, count: number): number {
  let best = 0
  for (let at = 1; at < count; at++) if (row[at]! > row[best]!) best = at
  return best
}
