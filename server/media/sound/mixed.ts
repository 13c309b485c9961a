import { withChannels } from '@core/mix/channels'
import type { MixDocument } from '@core/mix/document'
import { layoutOf } from '@core/mix/layout'
import { mixed } from '@core/mix/mixed'
import { planOf } from '@core/mix/plan'
import { decoded, type FileSource, type Rendering } from './decoder'

/** A file that a mix is put together of. */
export interface MixedFile extends Pick<FileSource, 'path' | 'junkBytes'> {
  channels: number
  durationMs: number
}

/** A mix with the files that it names, by their ids, and what it is rendered to. */
export interface MixSource extends Rendering {
  mix: MixDocument
  files: Readonly<Record<string, MixedFile>>
}

/** Interleaved frames of a mix. Its files are decoded from their beginnings, and so the same to the last bit each time. */
export function framesOfMix({ mix, files, side, ...rendering }: MixSource): AsyncGenerator<Float32Array> {
  const lengthOf = (fileId: string): number => files[fileId]!.durationMs
  const { sampleRateHz } = rendering
  const channels = rendering.channels === 1 ? 1 : 2
  const plan = planOf(layoutOf(mix, lengthOf), { sampleRateHz, channels }, lengthOf)
  return mixed(plan, fileId => {
    const { channels: has, ...file } = files[fileId]!
    const own = has === 1 ? 1 : 2
    return {
      fromFrame: 0,
      chunks: withChannels(decoded({ ...file, sampleRateHz, channels: own }), own, channels, side),
    }
  })
}
