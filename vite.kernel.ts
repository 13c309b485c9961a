import { createHash } from 'node:crypto'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { Plugin } from 'vite'

/** Compiles AssemblyScript modules (`*.as`) and hands them on as the bytes of a WebAssembly module. */
export function kernels(): Plugin {
  return {
    name: 'lake-letter-kernels',
    enforce: 'pre',
    async load(id) {
      if (!id.endsWith('.as')) return null
      const bytes = await kept(id)
      const base64 = Buffer.from(bytes).toString('base64')
      return `export default Uint8Array.from(atob('${base64}'), letter => letter.charCodeAt(0))`
    },
  }
}

const options = ['--optimizeLevel', '3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--use', 'abort=']
const cache = 'node_modules/.cache/lake-letter'

/** The compiler takes seconds and each of several builds would wait for it, so what it made of a source is kept. */
async function kept(path: string): Promise<Uint8Array> {
  const source = await readFile(path, 'utf8')
  const compiler = await readFile('node_modules/assemblyscript/package.json')
  const key = createHash('sha256').update(source).update(compiler).update(String(options)).digest('hex')
  const file = join(cache, `${key}.wasm`)
  return readFile(file).catch(async () => {
    const bytes = await compiled(path, source)
    await mkdir(cache, { recursive: true })
    // Another build may be reading there.
    const whole = `${file}.${process.pid}`
    await writeFile(whole, bytes)
    await rename(whole, file)
    return bytes
  })
}

async function compiled(path: string, source: string): Promise<Uint8Array> {
  const { default: asc } = await import('assemblyscript/asc')
  const entry = `${basename(path, '.as')}.ts`
  let bytes: Uint8Array | null = null
  const { error, stderr } = await asc.main([entry, '--outFile', 'kernel.wasm', ...options], {
    readFile: name => (name === entry ? source : null),
    writeFile: (_name, contents) => {
      bytes = contents as Uint8Array
    },
    listFiles: () => [],
  })
  if (error || !bytes) throw new Error(`${path} could not be compiled. ${stderr.toString()}`)
  return bytes
}
