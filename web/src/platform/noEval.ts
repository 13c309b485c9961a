import { config } from 'zod'

/** Schemas are read, and not compiled: the policy of our pages lets nothing make code out of text, and tells of each that tries. */
config({ jitless: true })
