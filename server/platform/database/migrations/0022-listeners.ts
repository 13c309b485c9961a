/** Listeners with an address of their own, and what goes out to them only. */
export const statements: readonly string[] = [
  'ALTER TABLE strands ADD is_private BOOLEAN NOT NULL DEFAULT FALSE',
  // by_secret: who asks. Whoever is withdrawn stays, and can be let in again.
  `CREATE TABLE feed_listeners (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    strand_id UUID NULL REFERENCES strands (id) ON DELETE CASCADE,
    name VARCHAR(120) NOT NULL,
    secret CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    created_at DATETIME(3) NOT NULL,
    renewed_at DATETIME(3) NULL,
    withdrawn_at DATETIME(3) NULL,
    last_at DATETIME(3) NULL,
    agent VARCHAR(120) NULL,
    UNIQUE INDEX by_secret (secret),
    INDEX of_show (show_id, name)
  ) CHARACTER SET utf8mb4`,
]
