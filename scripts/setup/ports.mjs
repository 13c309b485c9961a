import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { Halt } from './halt.mjs'

const tryPort = port =>
  new Promise((resolve, reject) => {
    const server = createServer().once('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const { port: given } = server.address()
      server.close(() => resolve(given))
    })
  })

/** Linux gives outgoing connections the ports from this one on; below it none is taken by chance before whoever chose it listens. */
const firstOutgoing = Number(readFileSync('/proc/sys/net/ipv4/ip_local_port_range', 'utf8').split(/\s/)[0])
/** Above those that a browser refuses to open. */
const lowest = 12_000
const count = Math.max(firstOutgoing - lowest, 1_000)
/** Processes that choose at once begin apart from each other. */
let next = process.pid * 101

/** A port of loopback that nothing listens on, and that nobody is given who does not ask for it here. */
export async function freePort() {
  for (;;) {
    const port = lowest + (next++ % count)
    try {
      return await tryPort(port)
    } catch (error) {
      if (error.code !== 'EADDRINUSE') throw error
    }
  }
}

/** Throws a Halt where a program listens on the port already. */
export async function needPort(port, variable, command) {
  await tryPort(port).catch(error => {
    if (error.code !== 'EADDRINUSE')
      throw new Halt(
        `Port ${port} cannot be opened (${error.code}); choose another: ${variable}=${port + 10} ${command}`,
      )
    throw new Halt(
      `Port ${port} is taken by another program; stop that, or choose another port: ${variable}=${port + 10} ${command}`,
    )
  })
}
