import type { MixPlan } from './plan'
import { MixRenderer } from './renderer'
import { type OpenDecoder, Tapes } from './tapes'

/** So many frames are rendered at once, and fewer at the beginning, which is heard the sooner. */
const firstFrames = 2_048
const mostFrames = 16_384

/** A bed that has been giving way before is listened to for so many times as long as it takes to come back: it is right to 5 % of its depth. */
const heardBefore = 3

/**
 * Interleaved frames of a mix from one of its frames on, rendered while its files are decoded side by side: as much of them is in
 * memory as is being heard. From the beginning it is exact; from elsewhere beds need a moment until they give way as they do.
 */
export async function* mixed(
  plan: MixPlan,
  openDecoder: OpenDecoder,
  { from = 0, patienceFrames = Infinity } = {},
): AsyncGenerator<Float32Array> {
  let at = listenedFrom(plan, from)
  const renderer = new MixRenderer(plan, at)
  const tapes = new Tapes(plan.segments, openDecoder, plan.channels, at, patienceFrames)
  const render = async (frames: number): Promise<Float32Array> => {
    const sounds = await Promise.all(renderer.needs(frames).map(need => tapes.read(need)))
    at += frames
    return renderer.render(frames, sounds)
  }
  try {
    if (at < from) await render(from - at)
    for (let frames = firstFrames; !renderer.isAtEnd; frames = Math.min(frames * 2, mostFrames)) {
      yield await render(frames)
      await tapes.closeIdle(at)
    }
  } finally {
    await tapes.close()
  }
}

function listenedFrom({ beds, sampleRateHz }: MixPlan, from: number): number {
  const listened = beds
    .filter(({ ducking, atFrame, frames }) => ducking && atFrame < from && from < atFrame + frames)
    .map(({ ducking }) => Math.round((heardBefore * ducking!.releaseMs * sampleRateHz) / 1000))
  return Math.max(0, from - Math.max(0, ...listened))
}
