/** An AssemblyScript module, compiled to WebAssembly by the build (vite.kernel.ts). */
declare module '*.as' {
  const bytes: Uint8Array<ArrayBuffer>
  export default bytes
}
