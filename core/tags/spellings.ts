import { tagKey } from './tags'

export interface UsedTag {
  tag: string
  count: number
}

/** Tags of a show that are one tag written in several ways (case, accents, plural), the most used spelling of each first. */
export function spellingsOf(used: readonly UsedTag[]): UsedTag[][] {
  const groups = new Map<string, UsedTag[]>()
  for (const each of used) {
    const key = tagKey(each.tag)
    const group = groups.get(key)
    if (group) group.push(each)
    else groups.set(key, [each])
  }
  return [...groups.values()]
    .filter(group => group.length > 1)
    .map(group => group.toSorted((one, other) => other.count - one.count))
}
