/** What a person is in a show. */
export const roles = ['keeper', 'maker', 'writer', 'reader'] as const
export type Role = (typeof roles)[number]

/**
 * What can be done in a show: look at all of it; write words; make, which is sound, releases and the show's facts; and keep,
 * which is people and what is removed for good.
 */
export type Act = 'look' | 'write' | 'make' | 'keep'

const acts: Readonly<Record<Role, readonly Act[]>> = {
  keeper: ['look', 'write', 'make', 'keep'],
  maker: ['look', 'write', 'make'],
  writer: ['look', 'write'],
  reader: ['look'],
}

/** Whether a role in a show allows an act there. */
export const may = (role: Role, act: Act): boolean => acts[role].includes(act)
