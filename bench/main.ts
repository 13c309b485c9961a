import { benchDemoFiles } from './demoFiles'
import { benchFeed } from './feed'
import { benchServing } from './serving'
import { benchSignals } from './signals'
import { benchSize } from './size'
import { benchSounds } from './sounds'

benchFeed()
await benchServing()
benchSignals()
await benchSounds()
await benchDemoFiles()
await benchSize()
