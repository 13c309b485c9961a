import { configureGlobal } from 'fast-check'

/** What generated tests begin from, where it is given; else they begin anywhere. */
const seed = process.env.SEED
if (seed) configureGlobal({ seed: Number(seed) | 0 })
