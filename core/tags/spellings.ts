import { tagKey } from './tags'

export interface UsedTag {
  tag: string
  count: number
}

/** Tags of a show that are one tag written in several ways (case, accents, plural), the most used spelling of each first. */
export function spellingsOf(used: readonly UsedTag[]): UsedTag[][] {
  const groups = new Map<string, UsedTag[]>()
  for (const each of used) groups.set(tagKey(each.tag), [...(groups.get(tagKey(each.tag)) ?? []), each])
  return [...groups.values()]
    .filter(group => group.length > 1)
    .map(group => group.toSorted((one, other) => other.count - one.count))
}
