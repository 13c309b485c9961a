import { fileURLToPath } from 'node:url'

const room = (name: string): string => fileURLToPath(new URL(`./${name}`, import.meta.url))

/** The rooms, as imports name them; tsconfig.json carries the same list. */
export const aliases = {
  '@core': room('core'),
  '@contract': room('contract'),
  '@server': room('server'),
  '@site': room('site'),
}
