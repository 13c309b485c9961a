import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import { aliases } from './vite.aliases.ts'
import { editions } from './vite.editions.ts'
import { kernels } from './vite.kernel.ts'
import { vueWithMarks } from './vite.ownWords.ts'

const shared = { plugins: [vueWithMarks(), kernels(), editions()], resolve: { alias: aliases } }

/** What is waited for has so long, also on a slow machine, where the usual second is too short. */
const waiting = { poll: { timeout: 90_000 } }

/** Files that take a minute or more: begun first, so that at the end none of them is waited for alone. */
const longest = [
  'e2e/places',
  'e2e/kills',
  'e2e/accessibility',
  'e2e/mishaps',
  'e2e/sounds',
  'e2e/releases',
  'server/media/sound/formats',
  'server/production/finishing/finishing',
  'server/production/finishing/badSound',
]
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification): number => {
      const at = longest.findIndex(name => moduleId.endsWith(`/${name}.test.ts`))
      return at < 0 ? longest.length : at
    }
    return (await super.sort(files)).toSorted((one, other) => rank(one) - rank(other))
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        ...shared,
        test: {
          name: 'unit',
          setupFiles: 'scripts/setup/seed.mjs',
          include: ['{core,contract,web,site,stand-ins,scripts}/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 120_000,
          maxWorkers: 2,
          isolate: false,
          expect: waiting,
        },
      },
      {
        ...shared,
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: 120_000,
          hookTimeout: 120_000,
          // One more than processors: each waits for its database, its programs, its browser a good part of the time.
          maxWorkers: 3,
          // The server is loaded once in a process and not for each file.
          isolate: false,
          setupFiles: ['server/testing/movedDate.ts', 'scripts/setup/seed.mjs'],
          expect: waiting,
        },
      },
      {
        ...shared,
        test: {
          name: 'journeys',
          include: ['e2e/**/*.test.ts'],
          testTimeout: 400_000,
          hookTimeout: 400_000,
          globalSetup: 'e2e/demoTemplate.ts',
          setupFiles: 'e2e/shownAtFailure.ts',
          maxWorkers: 2,
          isolate: false,
          expect: waiting,
        },
      },
    ],
  },
})
