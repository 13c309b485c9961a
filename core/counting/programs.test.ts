import { isbot } from 'isbot'
import { describe, expect, it } from 'vitest'
import { BlockList } from 'node:net'
import { longestAgent, programList, readProgram, shippedList } from './programs'

describe('the list of programs', () => {
  it.each(shippedList.programs.flatMap(({ examples, ...entry }) => examples.map(example => ({ example, entry }))))(
    'is met by its own example $example',
    ({ example, entry }) => {
      const { isRobot, name, device } = readProgram(example)
      expect(shippedList.programs.find(({ pattern }) => new RegExp(pattern, 'i').test(example))?.pattern).toBe(
        entry.pattern,
      )
      expect(isRobot).toBe(entry.kind === 'robot')
      if (entry.name) expect(name).toBe(entry.name)
      if (entry.device) expect(device).toBe(entry.device)
    },
  )

  it.each(shippedList.devices.flatMap(({ examples, device }) => examples.map(example => [example, device] as const)))(
    'tells the device of %s: %s',
    (example, device) => expect(readProgram(example).device).toBe(device),
  )

  it.each(shippedList.networks.flatMap(({ network, examples }) => examples.map(each => [network, each] as const)))(
    'has in %s its own example %s',
    (network, example) => {
      const block = new BlockList()
      const family = network.includes(':') ? 'ipv6' : 'ipv4'
      block.addSubnet(network.split('/')[0]!, Number(network.split('/')[1]), family)
      expect(block.check(example, family)).toBe(true)
    },
  )

  // isbot 5 (npm), a list of robots that others keep.
  it('calls no robot what another list calls none, and the reverse, in its own examples', () => {
    const examples = shippedList.programs.flatMap(({ kind, examples: of }) =>
      of.map(example => ({ example, isRobot: kind === 'robot' })),
    )
    const others = examples.filter(({ example, isRobot }) => isbot(example) !== isRobot).map(({ example }) => example)
    expect(others).toEqual([])
  })

  it.each([
    ['a pattern that cannot be read', { programs: [{ pattern: '(', kind: 'robot', examples: ['x'] }] }],
    ['a kind that is none', { programs: [{ pattern: 'x', kind: 'fish', examples: ['x'] }] }],
    ['a network that is none', { networks: [{ network: '300.1.1.1/8', examples: ['x'] }] }],
    ['a date that is none', { dated: 'today' }],
  ])('is refused with %s', (_what, part) => {
    expect(programList.safeParse({ ...shippedList, ...part }).success).toBe(false)
  })
})

describe('a program', () => {
  it.each([
    ['Kelp/3.1 (iPhone; iOS 17.1)', 'Kelp', 'phone'],
    ['Harbour%20Radio/41 CFNetwork/1410.0.3 Darwin/22.6.0', 'Harbour Radio', 'unknown'],
    ['Harbour%E0%A4%A/41', 'Harbour%E0%A4%A', 'unknown'],
    ['Пар\u0000ом/2', 'Пар ом', 'unknown'],
    ['', 'Unnamed', 'unknown'],
    ['/1.0', 'Unnamed', 'unknown'],
  ])('%j is %s on a %s', (agent, name, device) => expect(readProgram(agent)).toMatchObject({ name, device }))

  it('of 10 kB is read as far as its beginning', () => {
    const { name, identity } = readProgram('Kelp'.repeat(2_500))
    expect(name).toHaveLength(40)
    expect(identity).toHaveLength(longestAgent)
  })

  it('on a watch is the one on the telephone beside it; on a computer it is another', () => {
    const [watch, phone, computer] = [
      'atc/1.0 watchOS/9.1 model/Watch6,6 hwp/t8301 build/20S75 (6; dt:246)',
      'AppleCoreMedia/1.0.0.20B101 (iPhone; U; CPU OS 16_1_1 like Mac OS X; en_us)',
      'AppleCoreMedia/1.0.0.22A380 (Macintosh; U; Intel Mac OS X 13_0; en_gb)',
    ].map(agent => readProgram(agent).identity)
    expect(watch).toBe(phone)
    expect(computer).not.toBe(phone)
  })
})
