import type { DeliverableType } from './delivery'
/** How a source file is turned into the file that is delivered. It never touches the source. */
export interface Recipe {
  /** What stays, by the source's clock; null is the source's own end. */
  fromMs: number | null
  toMs: number | null
  fadeInMs: number
  fadeOutMs: number
  fadeShape: FadeShape
  /** Levelling of soft and loud speech, from 0 (leave) to 1 (even). */
  levelling: number
  /** Whether the loudness is brought to the target; else the sound keeps its own. */
  toTarget: boolean
  /** For two channels; one channel sounds alike 3 LU lower. */
  targetLufs: number
  ceilingDbtp: number
  encoding: EncodingName
  /** What one channel is made of, where two become one. */
  oneChannel: OneChannel
}

export const oneChannels = ['both sides', 'left', 'right'] as const
export type OneChannel = (typeof oneChannels)[number]

export const fadeShapes = ['linear', 'logarithmic'] as const
export type FadeShape = (typeof fadeShapes)[number]

export const encodingNames = ['speech and music', 'speech', 'm4a', 'as it came'] as const
export type EncodingName = (typeof encodingNames)[number]

/** What a preset comes to. Delivery formats and rates: common practice, no source. */
export interface Encoding {
  codec: 'mp3' | 'aac'
  bitRateBps: number
  sampleRateHz: number
  channels: 1 | 2
  type: DeliverableType
  /** What the encoder itself does to the level. */
  gainDb: number
  /** By how much encoding usually raises peaks: the fewer bits, the more. Found by measuring. */
  peakRoomDb: number
}

/** LAME scales what it encodes by 0.95 unless told otherwise, which ffmpeg does not; found by measuring. */
const lameGainDb = 20 * Math.log10(0.95)

const encodings: Readonly<Record<Exclude<EncodingName, 'as it came'>, Encoding>> = {
  'speech and music': {
    codec: 'mp3',
    bitRateBps: 128_000,
    sampleRateHz: 44_100,
    channels: 2,
    type: 'audio/mpeg',
    gainDb: lameGainDb,
    peakRoomDb: 0.8,
  },
  speech: {
    codec: 'mp3',
    bitRateBps: 64_000,
    sampleRateHz: 44_100,
    channels: 1,
    type: 'audio/mpeg',
    gainDb: lameGainDb,
    peakRoomDb: 1,
  },
  m4a: {
    codec: 'aac',
    bitRateBps: 128_000,
    sampleRateHz: 44_100,
    channels: 2,
    type: 'audio/mp4',
    gainDb: 0,
    peakRoomDb: 1.8,
  },
}

/** What stays of a source that is so long; all of it without a recipe, and where it goes out as it came. */
export function keptBy(
  recipe: Pick<Recipe, 'fromMs' | 'toMs' | 'encoding'> | null,
  durationMs: number,
): { fromMs: number; toMs: number } {
  return recipe === null || recipe.encoding === 'as it came'
    ? { fromMs: 0, toMs: durationMs }
    : { fromMs: recipe.fromMs ?? 0, toMs: recipe.toMs ?? durationMs }
}

/** A recipe whose ends are its source's own where it goes out as it came: that is not cut. */
export const withPossibleEnds = (recipe: Recipe): Recipe =>
  recipe.encoding === 'as it came' ? { ...recipe, fromMs: null, toMs: null } : recipe

/** The type that a source of a type goes out as; what has no recipe goes out as it came. */
export const deliveredType = (recipe: Pick<Recipe, 'encoding'> | null, sourceType: string): string =>
  recipe === null || recipe.encoding === 'as it came' ? sourceType : encodings[recipe.encoding].type

/** What a recipe's preset comes to. Throws a RangeError for `as it came`, which is not encoded. */
export function encodingOf({ encoding }: Pick<Recipe, 'encoding'>): Encoding {
  if (encoding === 'as it came') throw new RangeError('What goes out as it came is not encoded.')
  return encodings[encoding]
}

/** What a show begins with. Target and ceiling: common practice, no source. */
export const firstRecipe: Recipe = {
  fromMs: null,
  toMs: null,
  fadeInMs: 0,
  fadeOutMs: 0,
  fadeShape: 'logarithmic',
  levelling: 0,
  toTarget: true,
  targetLufs: -16,
  ceilingDbtp: -1,
  encoding: 'speech and music',
  oneChannel: 'both sides',
}

/** The target for so many channels: one channel comes from both loudspeakers and sounds 3 LU louder than it measures. */
export const targetFor = (recipe: Pick<Recipe, 'targetLufs'>, channels: number): number =>
  channels === 1 ? recipe.targetLufs - 3 : recipe.targetLufs

/** Two recipes that turn the same source into the same sound have the same text. */
export const recipeText = (recipe: Recipe): string =>
  JSON.stringify(Object.entries(recipe).sort(([one], [other]) => (one < other ? -1 : 1)))
