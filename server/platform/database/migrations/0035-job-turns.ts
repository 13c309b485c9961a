/** Whose turn it is: a short sound goes before a long one that came a little earlier. What waits already goes first. */
// whose_turn: each process asks for the next job of a kind, of however many that are due.
export const statements: readonly string[] = [
  `ALTER TABLE jobs ADD turn_at DATETIME(3) NOT NULL DEFAULT '1970-01-01',
    ADD INDEX whose_turn (state, kind, turn_at)`,
]
