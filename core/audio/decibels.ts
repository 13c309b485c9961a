/** Amplitude of a level in dB; 0 dB is 1. */
export const amplitude = (levelDb: number): number => 10 ** (levelDb / 20)

/** Level in dB of an amplitude; null for 0. */
export const level = (value: number): number | null => (value === 0 ? null : 20 * Math.log10(Math.abs(value)))
