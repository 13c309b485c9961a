import { z } from 'zod'
import shipped from './programs.json'

/** What somebody listens with. */
export const devices = ['phone', 'computer', 'tablet', 'speaker', 'watch', 'car', 'television', 'unknown'] as const
export type Device = (typeof devices)[number]

const pattern = z.string().refine(isPattern, 'A regular expression of ECMAScript.')
const examples = z.array(z.string()).min(1)
const device = z.enum(devices)

/**
 * A list of programs in the form of the public lists of user agents: what one says of itself, which kind it is, and examples.
 * Patterns are regular expressions of ECMAScript, without regard to case; the first that fits decides.
 */
export const programList = z.object({
  dated: z.iso.date(),
  programs: z.array(
    z.object({
      pattern,
      kind: z.enum(['robot', 'player', 'browser', 'app']),
      /** Without one, the name that the program gives itself. */
      name: z.string().optional(),
      device: device.optional(),
      /** Whether it fetches on a watch what the telephone beside it fetches too. */
      doubles: z.boolean().optional(),
      examples,
    }),
  ),
  devices: z.array(z.object({ pattern, device, examples })),
  /** Of data centres, as CIDR writes them. */
  networks: z.array(z.object({ network: z.union([z.cidrv4(), z.cidrv6()]), examples })),
})
export type ProgramList = z.output<typeof programList>

/** The list that ships; its networks and the names of libraries are from memory of what their registries publish. */
export const shippedList: ProgramList = programList.parse(shipped)

/** What a user agent tells. */
export interface Program {
  name: string
  device: Device
  isRobot: boolean
  /**
   * What stands for it in a listener's digest: itself, but for the players that fetch on a watch what the telephone fetches too,
   * which are one.
   */
  identity: string
}

/** Of what a program says of itself, more is not read. */
export const longestAgent = 255
const longestName = 40

function isPattern(text: string): boolean {
  try {
    new RegExp(text)
    return true
  } catch {
    return false
  }
}

/** Reads user agents by a list. */
export function programReader(list: ProgramList): (userAgent: string) => Program {
  const regular = <Entry extends { pattern: string }>(entries: readonly Entry[]) =>
    entries.map(entry => ({ ...entry, expression: new RegExp(entry.pattern, 'i') }))
  const [programs, kinds] = [regular(list.programs), regular(list.devices)]
  return userAgent => {
    const agent = userAgent.slice(0, longestAgent)
    const known = programs.find(({ expression }) => expression.test(agent))
    const on = known?.device ?? kinds.find(({ expression }) => expression.test(agent))?.device ?? 'unknown'
    const name = known?.name ?? ownName(agent)
    const isOneOfTwo = known?.doubles === true && (on === 'watch' || on === 'phone')
    return { name, device: on, isRobot: known?.kind === 'robot', identity: isOneOfTwo ? `${name}, phone` : agent }
  }
}

/** The name that a program gives itself, without version and remarks. */
function ownName(agent: string): string {
  const name = agent.split(/[/(;]/)[0]!
  const read = name.includes('%') ? decoded(name) : name
  return (
    read
      .replaceAll(/\p{Cc}+/gu, ' ')
      .trim()
      .slice(0, longestName)
      .trim() || 'Unnamed'
  )
}

function decoded(name: string): string {
  try {
    return decodeURIComponent(name)
  } catch {
    return name
  }
}

/** By the list that ships. */
export const readProgram = programReader(shippedList)
