import { benchDemoFiles } from './demoFiles'
import { benchFeed } from './feed'
import { benchServing } from './serving'
import { benchSounds } from './sounds'

benchFeed()
await benchServing()
await benchSounds()
await benchDemoFiles()
