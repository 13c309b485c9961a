import { benchDemoFiles } from './demoFiles'
import { benchFeed } from './feed'
import { benchFresh } from './fresh'
import { benchKeptFeed } from './keptFeed'
import { benchLaying } from './laying'
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
  laying: benchLaying,
  demoFiles: benchDemoFiles,
  site: benchSite,
  size: benchSize,
  releases: benchReleases,
}

const wanted = process.env.BENCHES?.split(' ').filter(Boolean) ?? []
for (const name of wanted)
  if (!(name in benches)) throw new Error(`There is no bench ${name}; there are ${Object.keys(benches).join(', ')}.`)
for (const [name, bench] of Object.entries(benches)) if (wanted.length === 0 || wanted.includes(name)) await bench()
