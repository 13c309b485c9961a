/**
 * The two filters of ITU-R BS.1770-5 annex 1 for a sample rate: b0, b1, b2, a1, a2 of the first, a high shelf for the
 * head, then a1, a2 of the second, a high pass ("RLB") with the numerator 1, −2, 1. The standard tabulates them for
 * 48 kHz; frequency, gain and Q here are those of the analogue filters behind the tables.
 */
export function kWeighting(sampleRateHz: number): number[] {
  return [...shelf(sampleRateHz), ...highPass(sampleRateHz)]
}

function shelf(sampleRateHz: number): number[] {
  const k = Math.tan((Math.PI * 1681.974450955533) / sampleRateHz)
  const gain = 10 ** (3.999843853973347 / 20)
  const q = 0.7071752369554196
  const band = gain ** 0.4996667741545416
  const a0 = 1 + k / q + k * k
  return [
    (gain + (band * k) / q + k * k) / a0,
    (2 * (k * k - gain)) / a0,
    (gain - (band * k) / q + k * k) / a0,
    (2 * (k * k - 1)) / a0,
    (1 - k / q + k * k) / a0,
  ]
}

function highPass(sampleRateHz: number): number[] {
  const k = Math.tan((Math.PI * 38.13547087602444) / sampleRateHz)
  const q = 0.5003270373238773
  const a0 = 1 + k / q + k * k
  return [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0]
}
