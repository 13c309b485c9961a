import { benchFeed } from './feed'
import { benchServing } from './serving'

benchFeed()
await benchServing()
