import { endingOf } from '@core/audio/delivery'

/** The last part of the address of a delivered file: another content, another name. */
export const deliveredName = (file: { fingerprint: string; type: string }): string =>
  `${file.fingerprint.slice(0, 16)}.${endingOf(file.type)}`
