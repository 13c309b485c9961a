/** Lowest and highest value of each stretch of sound, -127 to 127, in turn: low, high, low, high … */
export type Waveform = Int8Array

/**
 * Draws sound together into at most `maxStretches` stretches as it comes in, without knowing its length
 * ahead: when they are full, two and two become one.
 */
export class WaveformBuilder {
  private readonly values: Int8Array
  private stretches = 0
  private samplesPerStretch = 64
  private inStretch = 0
  private low = 0
  private high = 0

  constructor(private readonly maxStretches = 2000) {
    this.values = new Int8Array(maxStretches * 2)
  }

  /** Takes mono samples, 16 bit. */
  push(samples: Int16Array): void {
    for (let i = 0; i < samples.length; i++) {
      const value = samples[i]!
      if (value < this.low) this.low = value
      if (value > this.high) this.high = value
      if (++this.inStretch === this.samplesPerStretch) this.close()
    }
  }

  finish(): Waveform {
    if (this.inStretch > 0) this.close()
    return this.values.slice(0, this.stretches * 2)
  }

  private close(): void {
    this.values[this.stretches * 2] = Math.round((this.low / 32768) * 127)
    this.values[this.stretches * 2 + 1] = Math.round((this.high / 32767) * 127)
    this.stretches++
    this.inStretch = 0
    this.low = 0
    this.high = 0
    if (this.stretches === this.maxStretches) this.halve()
  }

  private halve(): void {
    const half = this.maxStretches / 2
    for (let i = 0; i < half; i++) {
      this.values[i * 2] = Math.min(this.values[i * 4]!, this.values[i * 4 + 2]!)
      this.values[i * 2 + 1] = Math.max(this.values[i * 4 + 1]!, this.values[i * 4 + 3]!)
    }
    this.stretches = half
    this.samplesPerStretch *= 2
  }
}
