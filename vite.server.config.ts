import { defineConfig } from 'vite'
import { aliases } from './vite.aliases.ts'
import { kernels } from './vite.kernel.ts'
import { vueWithMarks } from './vite.ownWords.ts'

/** What runs in Node.js: the server, the filling of the demo, the stand-ins, the benches. */
export default defineConfig({
  plugins: [vueWithMarks(), kernels()],
  resolve: { alias: aliases },
  publicDir: false,
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist/server',
    rolldownOptions: {
      input: {
        main: 'server/main.ts',
        worker: 'server/worker.ts',
        pictureWorker: 'server/pictures/worker.ts',
        soundWorker: 'server/sound/worker.ts',
        textWorker: 'server/foreignText/worker.ts',
        demo: 'demo/fill.ts',
        listener: 'stand-ins/listener/main.ts',
        copyist: 'stand-ins/copyist/main.ts',
        outbox: 'stand-ins/outbox/main.ts',
        hub: 'stand-ins/hub/main.ts',
        directories: 'stand-ins/directories/main.ts',
        bench: 'bench/main.ts',
      },
    },
  },
})
