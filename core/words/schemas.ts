import { z } from 'zod'
import { isWebAddress } from '../address/web'
import { oneLine } from './line'

/** Words on one line, which may be empty. */
export const line = (most: number) =>
  z
    .string()
    .overwrite(words => oneLine(words).trim())
    .max(most, `At most ${most.toLocaleString('en')} characters.`)

/** Words on one line, some at least. */
export const words = (most: number) => line(most).min(1, 'Must not be empty.')

/** The address of something on the web. */
export const webAddress = line(2000).refine(isWebAddress, 'A web address, such as https://example.org/page.')

/** The id of a picture, which is the SHA-256 of its bytes. */
export const pictureId = z.string().regex(/^[0-9a-f]{64}$/, 'The id of a picture that was uploaded.')
