import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { aliases } from './vite.aliases.ts'
import { kernels } from './vite.kernel.ts'

const shared = { plugins: [vue(), kernels()], resolve: { alias: aliases } }

export default defineConfig({
  test: {
    projects: [
      {
        ...shared,
        test: {
          name: 'unit',
          include: ['{core,contract,web,site,stand-ins,scripts}/**/*.test.ts'],
          testTimeout: 30_000,
          maxWorkers: 2,
          isolate: false,
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
        },
      },
      {
        ...shared,
        test: {
          name: 'journeys',
          include: ['e2e/**/*.test.ts'],
          testTimeout: 120_000,
          hookTimeout: 120_000,
          globalSetup: 'e2e/demoTemplate.ts',
          maxWorkers: 3,
          isolate: false,
          expect: { poll: { timeout: 10_000 } },
        },
      },
    ],
  },
})
