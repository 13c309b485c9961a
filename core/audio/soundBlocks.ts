import { blockFrames, marginFrames, type SoundKernel } from './soundKernel'

/**
 * Brings sound that comes in pieces of any size into a kernel's block, with the margins it looks into before and behind;
 * `work` is called for each block with the number of its frames.
 */
export class SoundBlocks {
  /** Frames in the block and the margin behind it. */
  private filled = 0

  constructor(
    private readonly kernel: SoundKernel,
    private readonly channels: number,
    private readonly work: (frames: number) => void,
  ) {}

  push(interleaved: Float32Array): void {
    const { channels, kernel } = this
    const frames = interleaved.length / channels
    for (let from = 0; from < frames;) {
      const count = Math.min(frames - from, blockFrames + marginFrames - this.filled)
      kernel.sound.set(
        interleaved.subarray(from * channels, (from + count) * channels),
        (marginFrames + this.filled) * channels,
      )
      this.filled += count
      from += count
      if (this.filled === blockFrames + marginFrames) this.take(blockFrames)
    }
  }

  /** Works on the rest, followed by silence as if the sound went on. */
  finish(): void {
    this.kernel.sound.fill(0, (marginFrames + this.filled) * this.channels)
    while (this.filled > 0) this.take(Math.min(this.filled, blockFrames))
  }

  /** Has the first frames worked on, and moves what is behind them to the front. */
  private take(frames: number): void {
    const { channels, kernel } = this
    this.work(frames)
    kernel.sound.copyWithin(0, frames * channels)
    kernel.sound.fill(0, kernel.sound.length - frames * channels)
    this.filled -= frames
  }
}
