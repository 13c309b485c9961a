import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import type { Plugin } from 'vite'

/** Compiles AssemblyScript modules (`*.as`) and hands them on as the bytes of a WebAssembly module. */
export function kernels(): Plugin {
  return {
    name: 'lake-letter-kernels',
    enforce: 'pre',
    async load(id) {
      if (!id.endsWith('.as')) return null
      const bytes = await compiled(id)
      const base64 = Buffer.from(bytes).toString('base64')
      return `export default Uint8Array.from(atob('${base64}'), letter => letter.charCodeAt(0))`
    },
  }
}

async function compiled(path: string): Promise<Uint8Array> {
  const { default: asc } = await import('assemblyscript/asc')
  const source = await readFile(path, 'utf8')
  const entry = `${basename(path, '.as')}.ts`
  let bytes: Uint8Array | null = null
  const { error, stderr } = await asc.main(
    [
      entry,
      '--outFile',
      'kernel.wasm',
      '--optimizeLevel',
      '3',
      '--noAssert',
      '--runtime',
      'stub',
      '--enable',
      'simd',
      '--use',
      'abort=',
    ],
    {
      readFile: name => (name === entry ? source : null),
      writeFile: (_name, contents) => {
        bytes = contents as Uint8Array
      },
      listFiles: () => [],
    },
  )
  if (error || !bytes) throw new Error(`${path} could not be compiled. ${stderr.toString()}`)
  return bytes
}
