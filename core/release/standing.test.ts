import { describe, expect, it } from 'vitest'
import { after, type Status, statuses, stepNames, steps } from './status'

describe('the states of an episode', () => {
  it('are each reached from a draft', () => {
    const reached = new Set<Status>(['draft'])
    for (let round = 0; round < statuses.length; round++)
      for (const step of stepNames)
        for (const from of [...reached]) {
          const to = after(step, from)
          if (to) reached.add(to)
        }
    expect(reached).toEqual(new Set(statuses))
  })
  it('never lead from what apps may have back to what was never out', () => {
    for (const step of stepNames)
      for (const from of ['released', 'retired'] as const)
        expect(['draft', 'scheduled']).not.toContain(after(step, from))
  })
  it('reach released by a release or by being put back, and by nothing else', () => {
    const ways = stepNames.filter(step => steps[step].to === 'released' && !steps[step].from.includes('released'))
    expect(ways).toEqual(['release', 'restore'])
  })
  it.each(stepNames.filter(step => steps[step].undo !== null))(
    '%s is undone by a step that can be taken where it leads',
    step => {
      const { to, undo } = steps[step]
      expect(after(undo!, to)).not.toBeNull()
    },
  )
  it('say of each step why, and what apps do', () => {
    for (const step of stepNames) {
      expect(steps[step].reason).toMatch(/^[A-Z].*\.$/)
      expect(steps[step].effect).toMatch(/^[A-Z].*\.$/)
    }
  })
})
