import type { Seeds } from './palette'

/** How the pages of a show are laid out; see site/browser/layouts. */
export const layouts = ['shore', 'letter', 'quay', 'horizon'] as const
export type Layout = (typeof layouts)[number]

/** What titles and text are set in. */
export const faces = ['literata', 'public-sans'] as const
export type Face = (typeof faces)[number]

/** What stands on the page of a show below the newest episode. */
export const blockKinds = ['subscribe', 'episodes', 'seasons', 'tags', 'people', 'about', 'comments'] as const
export type BlockKind = (typeof blockKinds)[number]
export interface Block {
  kind: BlockKind
  isOn: boolean
}

export interface SiteTheme {
  layout: Layout
  face: Face
  /** Null where they are drawn from the artwork. */
  colours: Seeds | null
  /** A wide picture at the top; null where there is none. */
  headerPictureId: string | null
  /** Each kind once, in the order in which they stand. */
  blocks: readonly Block[]
}

export const firstTheme: SiteTheme = {
  layout: 'shore',
  face: 'literata',
  colours: null,
  headerPictureId: null,
  blocks: blockKinds.map(kind => ({ kind, isOn: kind !== 'about' && kind !== 'comments' })),
}

/** A look as it was kept, with what came since as the house has it. */
export function withAllBlocks(kept: Partial<SiteTheme> | null): SiteTheme {
  const theme = { ...firstTheme, ...kept }
  const known = theme.blocks.filter(({ kind }) => blockKinds.includes(kind))
  const missing = firstTheme.blocks.filter(({ kind }) => !known.some(block => block.kind === kind))
  return { ...theme, blocks: [...known, ...missing] }
}
