/** Moves the clock of the tests' own processes to the moment that they are to begin at, so that none leans on today. */
const offsetMs = Number(process.env.CLOCK_OFFSET_MS ?? 0)
const moved = globalThis as { isDateMoved?: boolean }

if (offsetMs !== 0 && !moved.isDateMoved) {
  moved.isDateMoved = true
  const WorldsDate = Date
  globalThis.Date = new Proxy(WorldsDate, {
    construct: (target, parameters: [], itself) =>
      Reflect.construct(target, parameters.length > 0 ? parameters : [WorldsDate.now() + offsetMs], itself) as Date,
    apply: () => new Date().toString(),
    get: (target, name, itself) =>
      name === 'now' ? () => WorldsDate.now() + offsetMs : (Reflect.get(target, name, itself) as unknown),
  })
}
