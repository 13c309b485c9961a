/** Stretches of an episode to be passed on, and the short files that were cut of them. */
export const statements: readonly string[] = [
  "ALTER TABLE episodes ADD soundbites JSON NOT NULL DEFAULT '[]'",
  // once: what is cut alike is cut once, whoever asks; by_age: what nobody has asked for in long is cleared away.
  `CREATE TABLE soundbite_files (
    id UUID PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    made_of CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    sha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    bytes BIGINT UNSIGNED NOT NULL,
    made_at DATETIME(3) NOT NULL,
    asked_at DATETIME(3) NOT NULL,
    UNIQUE INDEX once (episode_id, made_of),
    INDEX by_age (asked_at)
  )`,
]
