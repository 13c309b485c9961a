import tailwind from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { aliases } from './vite.aliases.ts'
import { compressed } from './vite.compressed.ts'
import { kernels } from './vite.kernel.ts'
import { devServer, studioAddresses } from './vite.studio.ts'

interface StyleSheet {
  source?: { input: { file?: string } }
  walkDecls(name: string, act: (declaration: { value: string }) => void): void
}
/** On public pages a letter that comes late does not move what is read already: it is there from the next page on. */
const steadyLetters = {
  postcssPlugin: 'steady-letters',
  Once(root: StyleSheet): void {
    if (root.source?.input.file?.endsWith('site/browser/site.css'))
      root.walkDecls('font-display', display => {
        display.value = 'optional'
      })
  },
}

/** The studio and what the public pages load in the browser. */
export default defineConfig({
  plugins: [vue(), tailwind(), kernels(), compressed(), studioAddresses()],
  server: devServer,
  resolve: { alias: aliases },
  css: { postcss: { plugins: [steadyLetters] } },
  publicDir: 'web/public',
  build: {
    outDir: 'dist/web',
    manifest: true,
    chunkSizeWarningLimit: 1500,
    // A font in a style sheet is loaded by everybody, whether its letters are there or not.
    assetsInlineLimit: file => (file.endsWith('.woff2') || file.endsWith('.woff') ? false : undefined),
    rolldownOptions: { input: { studio: 'studio.html', site: 'site/browser/site.ts' } },
  },
})
