import { serve } from './serve.mjs'
import { main } from './setup/halt.mjs'

await main(() => serve({ name: 'start' }))
