/** A part of a place, at an address of its own. */
export interface PlaceTab {
  /** Of its route. */
  name: string
  words: string
}

/** Where something of a show is found: one of those in the frame, with its parts as tabs. */
export interface Place {
  words: string
  /** Its mark: paths in a square of 24, drawn with a line. */
  mark: string
  /** The first is where the place itself leads. */
  tabs: readonly PlaceTab[]
}

declare module 'vue-router' {
  interface RouteMeta {
    place?: Place
  }
}
