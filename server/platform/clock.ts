/** Where time comes from. */
export interface Clock {
  now(): Date
}

export const systemClock: Clock = { now: () => new Date() }

/** A clock that tests and the demo set; it stands still until it is moved. */
export class MovableClock implements Clock {
  constructor(private at: Date) {}

  now(): Date {
    return new Date(this.at)
  }

  moveTo(at: Date): void {
    this.at = at
  }

  moveBy(ms: number): void {
    this.at = new Date(+this.at + ms)
  }
}
