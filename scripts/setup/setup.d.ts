declare module '*/setup/database.mjs' {
  export function startDatabase(folder: string, options?: { port?: number; log?: (line: string) => void }): Promise<{ url: string; port: number; stop(): Promise<void> }>
}
declare module '*/setup/ports.mjs' {
  export function freePort(): Promise<number>
}
declare module '*/setup/programs.mjs' {
  interface Program { listening: Promise<string>; ended: Promise<void>; stop(signal?: string): Promise<void> }
  export function startProgram(entry: string, environment: Record<string, string>): Program
  export function runProgram(entry: string, environment: Record<string, string>): Promise<void>
}
