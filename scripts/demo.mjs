import { serve } from './serve.mjs'
import { main } from './setup/halt.mjs'

await main(() => serve({ name: 'demo', demo: true, fresh: process.argv.includes('--fresh') }))
