import { defineConfig } from 'vite'
import { aliases } from './vite.aliases.ts'
import { editions } from './vite.editions.ts'
import { kernels } from './vite.kernel.ts'
import { vueWithMarks } from './vite.ownWords.ts'

/** What runs in Node.js: the server, the filling of the demo, the stand-ins, the benches. */
export default defineConfig({
  plugins: [vueWithMarks(), kernels(), editions()],
  resolve: { alias: aliases },
  publicDir: false,
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist/server',
    rolldownOptions: {
      input: {
        main: 'server/app/main.ts',
        worker: 'server/app/worker.ts',
        bring: 'server/app/bring.ts',
        pictureWorker: 'server/media/pictures/worker.ts',
        soundWorker: 'server/media/sound/worker.ts',
        textWorker: 'server/platform/foreignText/worker.ts',
        demo: 'demo/fill.ts',
        listener: 'stand-ins/listener/main.ts',
        transcription: 'stand-ins/transcription/main.ts',
        outbox: 'stand-ins/outbox/main.ts',
        hub: 'stand-ins/hub/main.ts',
        directories: 'stand-ins/directories/main.ts',
        bench: 'bench/main.ts',
      },
    },
  },
})
