import { benchDemoFiles } from './demoFiles'
import { benchFeed } from './feed'
import { benchFresh } from './fresh'
import { benchKeptFeed } from './keptFeed'
import { benchCounting } from './counting'
import { benchAlignment } from './alignment'
import { benchMixing } from './mixing'
import { benchNoting } from './noting'
import { benchNumbers } from './numbers'
import { benchReleases } from './releases'
import { benchServing } from './serving'
import { benchSignals } from './signals'
import { benchSite } from './site'
import { benchSize } from './size'
import { benchSounds } from './sounds'
import { benchTranscripts } from './transcripts'

const benches: Record<string, () => void | Promise<void>> = {
  feed: benchFeed,
  keptFeed: benchKeptFeed,
  fresh: benchFresh,
  serving: benchServing,
  signals: benchSignals,
  sounds: benchSounds,
  transcripts: benchTranscripts,
  alignment: benchAlignment,
  demoFiles: benchDemoFiles,
  site: benchSite,
  size: benchSize,
  releases: benchReleases,
  counting: benchCounting,
  mixing: benchMixing,
  noting: benchNoting,
  numbers: benchNumbers,
}

/** Runs the one that is named; without a name says which there are. */
const name = process.env.BENCH
if (name) await benches[name]!()
else console.log(Object.keys(benches).join('\n'))
