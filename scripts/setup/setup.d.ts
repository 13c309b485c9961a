declare module '*/setup/database.mjs' {
  export function startDatabase(
    folder: string,
    options?: { port?: number; isThrowAway?: boolean; log?: (line: string) => void },
  ): Promise<{ url: string; port: number; stop(): Promise<void> }>
}
declare module '*/ports.mjs' {
  export function freePort(): Promise<number>
  export function needPort(port: number, variable: string, command: string): Promise<void>
}
declare module '*/house.mjs' {
  export function claim(folder: string, address: string): () => void
}
declare module '*/debian.mjs' {
  export function findProgram(name: string): string | null
}
declare module '*/setup/programs.mjs' {
  interface Program {
    listening: Promise<string>
    ended: Promise<void>
    stop(signal?: string): Promise<void>
  }
  export function startProgram(entry: string, environment: Record<string, string>): Program
  export function runProgram(entry: string, environment: Record<string, string>): Promise<void>
}
declare module '*/setup/nginx.mjs' {
  export function startNginx(
    folder: string,
    house: { port: number; serverPort: number; mediaDir: string; also?: string },
  ): Promise<{ logPath: string; reopenLogs(): void; stop(): void }>
}
