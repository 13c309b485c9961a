/** What a person is in a show. */
export const roles = ['keeper', 'maker', 'writer', 'reader'] as const
export type Role = (typeof roles)[number]

/**
 * What can be done in a show: look at all of it; write words; make, which is sound, releases and the show's facts; and keep,
 * which is people and what is removed for good.
 */
export type Act = 'read' | 'write' | 'make' | 'keep'

const acts: Readonly<Record<Role, readonly Act[]>> = {
  keeper: ['read', 'write', 'make', 'keep'],
  maker: ['read', 'write', 'make'],
  writer: ['read', 'write'],
  reader: ['read'],
}

/** What somebody who is not everything in a show may do there, for them. */
export const roleWords: Readonly<Record<Exclude<Role, 'keeper'>, string>> = {
  maker: 'You can do everything here, except add people and delete for good.',
  writer: 'You can write here. Audio, releases and the show’s own facts are for its makers.',
  reader: 'You can see everything here, and change nothing.',
}

/** Whether a role in a show allows an act there. */
export const may = (role: Role, act: Act): boolean => acts[role].includes(act)
