import type { DamageFinder } from '@core/audio/damage'
import { decoded, type FileSource } from './decoder'
import { framesOfMix, type MixSource } from './mixed'

/** Where a sound comes from, and what it is decoded to. */
export type Source = FileSource | MixSource
/** The same, whatever it is decoded to. */
export type SourceFiles = Pick<FileSource, 'path' | 'junkBytes'> | Pick<MixSource, 'mix' | 'files'>

/** Interleaved frames of a source, 32 bit, full scale 1; what cannot be sound is left out, and of a file told to `damage`. */
export const framesOf = (source: Source, damage?: DamageFinder): AsyncGenerator<Float32Array> =>
  'mix' in source ? framesOfMix(source) : decoded(source, damage)
