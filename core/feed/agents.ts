const mostLetters = 120

/** A program that fetches, by the name that it gives itself, without version and remarks; browsers all say the same. */
export function agentName(userAgent: string): string {
  if (/^Mozilla\//.test(userAgent)) return 'A browser'
  const name = userAgent.split(/[/(;]/)[0]!.trim().slice(0, mostLetters)
  return name === '' ? 'Somebody without a name' : name
}
