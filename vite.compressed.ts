import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { Plugin } from 'vite'

const worthIt = /\.(js|css|svg)$/

/** Writes the built assets once more as brotli and gzip, so that no request has to. */
export function compressed(): Plugin {
  let folder = ''
  return {
    name: 'lake-letter-compressed',
    apply: 'build',
    configResolved(config) {
      folder = join(config.root, config.build.outDir, config.build.assetsDir)
    },
    async closeBundle() {
      for (const name of await readdir(folder)) {
        if (!worthIt.test(name)) continue
        const bytes = await readFile(join(folder, name))
        await writeFile(
          join(folder, `${name}.br`),
          await promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
        )
        await writeFile(join(folder, `${name}.gz`), await promisify(gzip)(bytes, { level: 9 }))
      }
    },
  }
}
