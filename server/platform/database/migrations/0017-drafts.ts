/** Transcripts that a copyist drafts: what was asked for, and that nobody has read what came. */
export const statements: readonly string[] = [
  // A database may have the column already, from the time when the migration before this one made it.
  `ALTER TABLE transcripts
    MODIFY origin ENUM('file', 'written', 'laid', 'drafted') NOT NULL,
    ADD COLUMN IF NOT EXISTS is_unread BOOLEAN NOT NULL DEFAULT FALSE`,
  // of_episode: an episode has one on its way.
  `CREATE TABLE drafts (
    id UUID PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    file_id UUID NOT NULL,
    language VARCHAR(35) CHARACTER SET ascii NOT NULL,
    state ENUM('working', 'failed') NOT NULL,
    begun INT UNSIGNED NOT NULL DEFAULT 0,
    progress DOUBLE NOT NULL DEFAULT 0,
    problem VARCHAR(500) NULL,
    token_hash CHAR(64) CHARACTER SET ascii NULL,
    created_at DATETIME(3) NOT NULL,
    got_on_at DATETIME(3) NOT NULL,
    answered_at DATETIME(3) NOT NULL,
    UNIQUE INDEX of_episode (episode_id)
  ) CHARACTER SET utf8mb4`,
]
