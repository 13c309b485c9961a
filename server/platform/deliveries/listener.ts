import { createHmac } from 'node:crypto'
import { BlockList, isIPv4, isIPv6 } from 'node:net'
import ipaddr from 'ipaddr.js'
import { LRUCache } from 'lru-cache'
import { type Program, programReader, type ProgramList } from '@core/counting/programs'
import type { Places } from './places'

/** Who is answered, as far as the log knows. */
export interface Listener {
  /** A keyed digest of address and program, 16 hexadecimal digits; another one on each day. */
  who: string
  place: string | null
  /** Whether the address is of a data centre. */
  isHosted: boolean
}

const mostKept = 20_000

/** Tells who is answered. An address is not kept longer than it takes to tell. */
export function listenerReader(list: ProgramList, places: Places) {
  const readProgram = programReader(list)
  const programs = new LRUCache<string, Program>({ max: 5_000 })
  const hosted = new BlockList()
  for (const { network } of list.networks) {
    const [address, bits] = network.split('/')
    hosted.addSubnet(address!, Number(bits), isIPv4(address!) ? 'ipv4' : 'ipv6')
  }
  const kept = new LRUCache<string, Listener & { agent: string }>({ max: mostKept })
  let keptUnder: Buffer | null = null

  function programOf(agent: string): Program {
    let program = programs.get(agent)
    if (!program) {
      program = readProgram(agent)
      programs.set(agent, program)
    }
    return program
  }

  function read(address: string, agent: string, key: Buffer): Listener {
    const plain = plainAddress(address)
    return {
      who: createHmac('sha256', key)
        .update(`${plain} ${programOf(agent).identity}`)
        .digest('hex')
        .slice(0, 16),
      place: places.of(plain),
      isHosted: isIPv4(plain) ? hosted.check(plain, 'ipv4') : isIPv6(plain) && hosted.check(plain, 'ipv6'),
    }
  }

  return {
    programOf,
    /** With the program’s name as it is kept here: of what is written down for each answer nothing else must live on. */
    of(address: string, agent: string, key: Buffer): Listener & { agent: string } {
      if (keptUnder !== key) {
        kept.clear()
        keptUnder = key
      }
      const name = `${address} ${agent}`
      let listener = kept.get(name)
      if (!listener) {
        listener = { ...read(address, agent, key), agent }
        kept.set(name, listener)
      }
      return listener
    },
  }
}
export type ListenerReader = ReturnType<typeof listenerReader>

/** An address as others write it, an IPv4 within IPv6 as IPv4; of IPv6 the network of a household, whose devices change the rest of theirs by themselves. */
function plainAddress(address: string): string {
  if (!ipaddr.isValid(address)) return ''
  const read = ipaddr.process(address)
  if (read.kind() === 'ipv4') return read.toString()
  const bytes = read.toByteArray()
  return ipaddr.fromByteArray(bytes.map((byte, n) => (n < 8 ? byte : 0))).toString()
}
