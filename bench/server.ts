import { type ChildProcess, spawn } from 'node:child_process'
import { once } from 'node:events'
import { demoAccount } from '../demo/scenario'

/** Starts a process of the house on a port; where several are to be one house, all are given the same public address. */
export async function startServer(port: number, publicUrl = `http://127.0.0.1:${port}`): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['dist/server/main.js'], {
    env: { ...process.env, PORT: String(port), PUBLIC_URL: publicUrl },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  })
  await once(server, 'message')
  return server
}

export async function stopServer(server: ChildProcess): Promise<void> {
  server.kill('SIGTERM')
  await once(server, 'close')
}

export const signIn = (base: string): Promise<Response> =>
  fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(demoAccount),
  })

/** The cookie of whoever keeps the demo's shows. */
export const cookieAt = async (base: string): Promise<string> =>
  (await signIn(base)).headers.getSetCookie()[0]!.split(';')[0]!
