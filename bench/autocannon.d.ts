declare module 'autocannon' {
  /** Sends requests to loopback for `duration` seconds. */
  export default function autocannon(options: { url: string; headers?: Record<string, string>; connections: number; duration: number; workers: number }): Promise<{ requests: { average: number } }>
}
