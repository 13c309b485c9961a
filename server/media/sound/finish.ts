import { rename } from 'node:fs/promises'
import { join } from 'node:path'
import { amplitude } from '@core/audio/decibels'
import { searchGain } from '@core/audio/gainSearch'
import type { Measurement } from '@core/audio/measurement'
import { type FinishPlan, Finisher } from '@core/audio/finisher'
import { ceilingBeforeEncoding, type Miss, missOf, planBeforeGain, targetBeforeEncoding } from '@core/audio/finishPlan'
import { type Encoding, encodingOf, type Recipe, targetFor } from '@core/audio/recipe'
import { SoundMeter } from '@core/audio/soundMeter'
import { type SoundProfile, SoundProfiler } from '@core/audio/soundProfile'
import { framesOf, type Source } from './source'
import { encodedName, startEncoding } from './encoder'
import { Refusal } from '../../platform/refusal'
import type { Finished, FinishReport, Measured, SoundTask } from './tasks'

type FinishTask = Extract<SoundTask, { kind: 'finish' }>
type Progress = (share: number) => void

const mostTries = 5
const mostReductions = 600
/** How much more gain than the plain difference a search usually ends at. */
const usuallySpentDb = 6
/** How the work is shared out: hearing the sound once, then encoding and hearing it again; a second encoding begins there. */
const heardShare = 0.2

/**
 * Finishes a sound: hears it once as the recipe makes it before gain, finds on its profile the gain that brings it to
 * the target behind the limiter, encodes it, and hears what came out while it does. What missed is encoded again with the miss
 * made good; of all tries the best one is kept: never over the ceiling where one was under it, then the nearest to the target.
 */
export async function finishSound(task: FinishTask, progress: Progress): Promise<Finished> {
  const { recipe, measurement, folder } = task
  const encoding = encodingOf(recipe)
  const before = planBeforeGain(recipe, measurement)
  const source = sourceFor(task, encoding)
  const profile = await profileOf(
    source,
    before,
    lookedInto(before, recipe, measurement),
    share => progress(share * heardShare),
    measurement.durationMs,
  )

  let miss: Miss = { lu: 0, peakDb: 0 }
  let best: (Finished & { miss: Miss }) | null = null
  for (let attempt = 1; attempt <= mostTries; attempt++) {
    const plan = planWith(before, recipe, profile, miss)
    const from = attempt === 1 ? heardShare : 1 - (1 - heardShare) / 2 ** attempt
    const made = await encode(
      source,
      plan,
      encoding,
      folder,
      share => progress(from + (share * (1 - from)) / 2),
      measurement.durationMs,
    )
    const missed = missOf(recipe, made.measurement)
    if (!best || isBetter(missed, best.miss)) {
      await rename(join(folder, encodedName(encoding)), join(folder, `best-${encodedName(encoding)}`))
      best = {
        ...made,
        miss: missed,
        name: `best-${encodedName(encoding)}`,
        report: { ...made.report, missedByLu: missedLu(recipe, made) },
      }
    }
    const isShort = recipe.toTarget && !plan.reaches && missed.lu <= 0
    if (missed.peakDb === 0 && (missed.lu === 0 || isShort)) break
    miss = { lu: miss.lu + (isShort ? 0 : missed.lu), peakDb: miss.peakDb + missed.peakDb }
  }
  const { miss: _miss, ...finished } = best!
  if (isSilent(finished.measurement) && !isSilent(measurement))
    throw new Refusal(
      'There is nothing to be heard',
      'What came out is silent, though the file is not: a part of it may be damaged.',
      'Listen to the file to its end, export it anew, and upload that.',
    )
  return finished
}

/** Nobody hears what lies so low (common practice, no source: the noise of a quiet room recorded well is louder). */
const silentDbfs = -70
const isSilent = ({ samplePeakDbfs }: Measurement): boolean => samplePeakDbfs === null || samplePeakDbfs < silentDbfs

/** The peaks that a limiter may have to do with, given what the search may spend; smaller ones need no look between their samples. */
function lookedInto({ gainBeforeDb, channels }: FinishPlan, recipe: Recipe, { integratedLufs }: Measurement): number {
  const none: Miss = { lu: 0, peakDb: 0 }
  const gainDb =
    integratedLufs === null ? 0 : targetBeforeEncoding(recipe, channels, none) - integratedLufs - gainBeforeDb
  return amplitude(ceilingBeforeEncoding(recipe, none) - gainDb - usuallySpentDb)
}

/** Under the ceiling goes before loudness. */
const isBetter = (one: Miss, other: Miss): boolean =>
  one.peakDb !== other.peakDb ? one.peakDb < other.peakDb : Math.abs(one.lu) < Math.abs(other.lu)

const missedLu = (recipe: Recipe, { measurement: { integratedLufs, channels } }: Measured): number =>
  recipe.toTarget && integratedLufs !== null ? integratedLufs - targetFor(recipe, channels) : 0

/** The source as the encoding wants it: its rate, its channels. */
function sourceFor({ source, recipe }: FinishTask, { sampleRateHz, channels }: Encoding): Source {
  const side =
    channels === 1 && source.channels === 2 && recipe.oneChannel !== 'both sides' ? { side: recipe.oneChannel } : {}
  return { ...source, sampleRateHz, channels, ...side }
}

function planWith(
  before: FinishPlan,
  recipe: Recipe,
  profile: SoundProfile,
  miss: Miss,
): FinishPlan & { reaches: boolean } {
  const ceilingDbtp = ceilingBeforeEncoding(recipe, miss)
  if (!recipe.toTarget) return { ...before, gainDb: -encodingOf(recipe).gainDb, ceilingDbtp, reaches: true }
  const { gainDb, reaches } = searchGain(profile, targetBeforeEncoding(recipe, before.channels, miss), ceilingDbtp)
  return { ...before, gainDb, ceilingDbtp, reaches }
}

async function profileOf(
  source: Source,
  plan: FinishPlan,
  lookedInto: number,
  progress: Progress,
  expectedMs: number,
): Promise<SoundProfile> {
  const finisher = new Finisher(plan)
  const profiler = new SoundProfiler(plan.sampleRateHz, plan.channels, lookedInto)
  const tell = context(source, progress, expectedMs)
  for await (const sound of framesOf(source)) {
    const count = sound.length
    profiler.push(finisher.push(sound))
    tell(count)
  }
  profiler.push(finisher.finish().rest)
  return profiler.finish()
}

async function encode(
  source: Source,
  plan: FinishPlan,
  encoding: Encoding,
  folder: string,
  progress: Progress,
  expectedMs: number,
): Promise<Measured & { report: Omit<FinishReport, 'missedByLu'> }> {
  const meter = new SoundMeter(plan.sampleRateHz, plan.channels)
  const finisher = new Finisher(plan)
  const encoder = startEncoding(encoding, folder, sound => meter.push(sound))
  const tell = context(source, progress, expectedMs)
  try {
    for await (const sound of framesOf(source)) {
      const count = sound.length
      await encoder.write(finisher.push(sound))
      tell(count)
    }
    const { rest, limitedByDb, reductionsDb } = finisher.finish()
    await encoder.write(rest)
    await encoder.finish()
    return {
      ...meter.finish(),
      report: {
        gainDb: plan.gainBeforeDb + plan.gainDb + encoding.gainDb,
        limitedByDb,
        reductionsDb: drawnTogether(reductionsDb),
      },
    }
  } finally {
    await encoder.stop()
  }
}

/** Says how far decoding is, of the length that is expected. */
function context({ sampleRateHz, channels }: Source, progress: Progress, expectedMs: number): (values: number) => void {
  let frames = 0
  return values => {
    frames += values / channels
    progress(Math.min(1, ((frames / sampleRateHz) * 1000) / Math.max(1, expectedMs)))
  }
}

function drawnTogether(reductionsDb: readonly number[]): number[] {
  const width = Math.ceil(reductionsDb.length / mostReductions) || 1
  return Array.from(
    { length: Math.ceil(reductionsDb.length / width) },
    (_, index) => Math.round(Math.max(...reductionsDb.slice(index * width, (index + 1) * width)) * 10) / 10,
  )
}
