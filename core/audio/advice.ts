import { clock } from '../words/amounts'
import type { Finding } from './findings'
import type { Measurement } from './measurement'
import { nearEnoughLu } from './finishPlan'
import { type Recipe, targetFor } from './recipe'
import { heardLufs } from './usual'

/** What a measured sound is judged against: the show's recipe, and how loud its last episodes are. */
export interface Standard {
  recipe: Recipe
  usualLufs: number | null
}

const practice = 'common practice, no source'
const leastDifferenceLu = 1
const longestHeadMs = 1_000
const longestTailMs = 3_000
const widestRangeLu = 14

/** A level with its sign, to a tenth: `−16.0`, `+1.2`. */
export const signed = (value: number): string =>
  `${value < -0.05 ? '−' : value > 0.05 ? '+' : ''}${Math.abs(value).toFixed(1)}`

/** What a measurement gives reason to say, the gravest first. */
export function advice(measured: Measurement, standard: Standard): Finding[] {
  const found = [silent, loudness, limiting, peaks, clipped, head, tail, gaps, sides, turnedOver, range, twice].flatMap(
    check => check(measured, standard) ?? [],
  )
  return found.sort((one, other) => order.indexOf(one.weight) - order.indexOf(other.weight))
}

const order: readonly Finding['weight'][] = ['must mend', 'worth mending', 'good to know']

type Check = (measured: Measurement, standard: Standard) => Finding | null

const silent: Check = ({ samplePeakDbfs, headSilenceMs, durationMs }) =>
  samplePeakDbfs !== null && headSilenceMs < durationMs
    ? null
    : {
        weight: 'must mend',
        code: 'silent',
        says: 'There is nothing but silence in this file.',
        rule: `An episode can be heard; anything under −50 dBFS counts as silence (${practice}).`,
        ifItStays: 'Listeners hear nothing. The wrong track may have been exported.',
        mend: null,
        places: [],
      }

const loudness: Check = (measured, { recipe, usualLufs }) => {
  const { integratedLufs, truePeakDbtp, channels } = measured
  if (integratedLufs === null || truePeakDbtp === null) return null
  const target = targetFor(recipe, channels)
  const gainDb = target - integratedLufs
  if (Math.abs(gainDb) <= leastDifferenceLu) return null
  const way = gainDb > 0 ? 'quieter' : 'louder'
  const peakDbtp = truePeakDbtp + gainDb
  const fromUsual = usualLufs === null ? 0 : usualLufs - heardLufs(measured)!
  // The usual loudness is the better yardstick, unless the show's episodes lie elsewhere themselves.
  const byUsual = fromUsual * gainDb > 0 && Math.abs(fromUsual) > 0.5 && Math.abs(usualLufs! - recipe.targetLufs) <= 2
  const distance = byUsual
    ? `${Math.abs(fromUsual).toFixed(1)} LU ${way} than your episodes usually are`
    : `${Math.abs(gainDb).toFixed(1)} LU ${way} than the show’s target`
  return {
    weight: Math.abs(gainDb) > 3 ? 'worth mending' : 'good to know',
    code: way,
    says: `${distance}. ${gainDb > 0 ? 'Raising' : 'Lowering'} it by ${Math.abs(gainDb).toFixed(1)} dB would put the loudest moment at ${signed(peakDbtp)} dBTP${peakDbtp > recipe.ceilingDbtp ? ', so it needs limiting' : ''}.`,
    rule: `The show’s target is ${signed(target)} LUFS${channels === 1 ? ', for one channel' : ''} (${practice}; measured as ITU-R BS.1770 says).`,
    ifItStays: 'Listeners reach for the volume between this episode and the next.',
    mend: 'finish',
    places: [],
  }
}

/** Peaks that are held back by more change how a sound feels. */
const deepLimitingDb = 6
const harshLimitingDb = 12

/** What finishing would do to peaks, as far as one number tells it. */
const limiting: Check = ({ integratedLufs, truePeakDbtp, channels }, { recipe }) => {
  if (integratedLufs === null || truePeakDbtp === null || !recipe.toTarget) return null
  const heldBackDb = truePeakDbtp + targetFor(recipe, channels) - integratedLufs - recipe.ceilingDbtp
  if (heldBackDb <= deepLimitingDb) return null
  return {
    ...deepLimiting(heldBackDb),
    says: `Finishing would hold the loudest moments back by about ${heldBackDb.toFixed(0)} dB.`,
    ifItStays:
      'Where it is one knock or one laugh, it does no harm; where it is often, the sound loses its life. Evening out soft and loud first, or a lower target, holds back less.',
    mend: 'level',
  }
}

const deepLimiting = (heldBackDb: number) => ({
  weight: heldBackDb > harshLimitingDb ? ('worth mending' as const) : ('good to know' as const),
  code: 'deep-limiting',
  rule: `Peaks of more than ${deepLimitingDb} dB over the ceiling are a lot to hold back (${practice}).`,
  places: [],
})

/** What came of a finish that a person should know: deep limiting, and a target that the ceiling did not allow. */
export function finishFindings(
  { limitedByDb, missedByLu }: { limitedByDb: number; missedByLu: number },
  { targetLufs, ceilingDbtp }: Pick<Recipe, 'targetLufs' | 'ceilingDbtp'>,
): Finding[] {
  const found: Finding[] = []
  if (Math.abs(missedByLu) > nearEnoughLu)
    found.push({
      weight: 'good to know',
      code: 'target-missed',
      says: `The target of ${signed(targetLufs)} LUFS and the ceiling of ${signed(ceilingDbtp)} dBTP cannot both be had: the ceiling was kept, and it is ${Math.abs(missedByLu).toFixed(1)} LU ${missedByLu < 0 ? 'quieter' : 'louder'} than the target.`,
      rule: `The ceiling goes before the target: what is over it crackles, what is quieter is turned up (${practice}).`,
      ifItStays: 'Listeners turn it up a little. Evening out soft and loud brings it closer to the target.',
      mend: 'level',
      places: [],
    })
  if (limitedByDb > deepLimitingDb)
    found.push({
      ...deepLimiting(limitedByDb),
      says: `The loudest moments were held back by up to ${limitedByDb.toFixed(0)} dB.`,
      ifItStays: 'Listen to the loud places. Evening out soft and loud first, or a lower target, holds back less.',
      mend: 'level',
    })
  return found
}

const peaks: Check = ({ truePeakDbtp }, { recipe: { ceilingDbtp } }) =>
  truePeakDbtp === null || truePeakDbtp <= ceilingDbtp + 0.05
    ? null
    : {
        weight: truePeakDbtp > 0 ? 'worth mending' : 'good to know',
        code: 'peaks',
        says: `The loudest moment reaches ${signed(truePeakDbtp)} dBTP.`,
        rule: `The show’s ceiling is ${signed(ceilingDbtp)} dBTP (EBU R 128 asks for −1).`,
        ifItStays: 'It can crackle where an app converts it or plays it through small loudspeakers.',
        mend: 'finish',
        places: [],
      }

/** Places that were clipped before they came here, which no finishing brings back. */
export const clipped: Check = ({ clips, clipCount }) =>
  clipCount === 0
    ? null
    : {
        weight: 'worth mending',
        code: 'clipped',
        says:
          clipCount === 1
            ? `One place is clipped, at ${clock(clips[0]!.fromMs)}.`
            : `${clipCount.toLocaleString('en')} places are clipped, the first at ${clock(clips[0]!.fromMs)}.`,
        rule: `Three samples in a row that stand alike at full scale were cut off (${practice}).`,
        ifItStays:
          'It sounds harsh there. Listen to the places; the recording has to be made again with less level to be rid of them.',
        mend: null,
        places: clips,
      }

const head: Check = ({ headSilenceMs, durationMs }) =>
  headSilenceMs <= longestHeadMs || headSilenceMs >= durationMs
    ? null
    : {
        weight: 'worth mending',
        code: 'head-silence',
        says: `It begins with ${seconds(headSilenceMs)} of silence.`,
        rule: `A second at the head is enough (${practice}).`,
        ifItStays: 'Listeners think that it does not play.',
        mend: 'trim',
        places: [{ fromMs: 0, toMs: headSilenceMs }],
      }

const tail: Check = ({ tailSilenceMs, durationMs }) =>
  tailSilenceMs <= longestTailMs
    ? null
    : {
        weight: 'worth mending',
        code: 'tail-silence',
        says: `It ends with ${seconds(tailSilenceMs)} of silence.`,
        rule: `Three seconds at the tail are enough (${practice}).`,
        ifItStays: 'The next episode starts late, and the length shown is not what is heard.',
        mend: 'trim',
        places: [{ fromMs: durationMs - tailSilenceMs, toMs: durationMs }],
      }

const gaps: Check = ({ gaps: found }) =>
  found.length === 0
    ? null
    : {
        weight: 'good to know',
        code: 'gaps',
        says:
          found.length === 1
            ? `It is silent for ${seconds(found[0]!.toMs - found[0]!.fromMs)} at ${clock(found[0]!.fromMs)}.`
            : `It falls silent ${found.length} times for three seconds or more, first at ${clock(found[0]!.fromMs)}.`,
        rule: `A pause of three seconds is noticed (${practice}).`,
        ifItStays: 'Nothing, where it is meant; else something was muted by mistake.',
        mend: null,
        places: found,
      }

const sides: Check = ({ image }) =>
  image !== 'one side only'
    ? null
    : {
        weight: 'worth mending',
        code: 'one-side',
        says: 'One of the two channels is silent.',
        rule: `A voice belongs in the middle (${practice}).`,
        ifItStays: 'With earphones it is heard on one ear only.',
        mend: 'mono',
        places: [],
      }

const turnedOver: Check = ({ image }) =>
  image !== 'antiphase'
    ? null
    : {
        weight: 'worth mending',
        code: 'antiphase',
        says: 'The two sides are the same sound turned over: mixed to one channel, they cancel each other.',
        rule: `What is heard from one loudspeaker is both sides mixed (${practice}).`,
        ifItStays: 'On a phone and a small loudspeaker there is next to nothing to hear.',
        mend: 'one side',
        places: [],
      }

const range: Check = ({ rangeLu }) =>
  rangeLu <= widestRangeLu
    ? null
    : {
        weight: 'good to know',
        code: 'range',
        says: `Soft and loud passages lie ${rangeLu.toFixed(1)} LU apart.`,
        rule: `Speech up to ${widestRangeLu} LU is understood on the road (${practice}; measured as EBU Tech 3342 says).`,
        ifItStays: 'In a car or a train the soft passages are lost.',
        mend: 'level',
        places: [],
      }

const twice: Check = ({ image }) =>
  image !== 'dual mono'
    ? null
    : {
        weight: 'good to know',
        code: 'dual-mono',
        says: 'Both channels carry the same sound.',
        rule: `Speech alone holds up at 64 kbit/s in one channel (${practice}).`,
        ifItStays: 'The file is twice as large as it need be. It sounds no worse.',
        mend: 'mono',
        places: [],
      }

const seconds = (ms: number): string => (ms < 60_000 ? `${(ms / 1000).toFixed(1)} s` : clock(ms))
