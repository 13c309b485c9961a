/** What is said in episodes: as it is worked on, and as it stands in the feed. */
export const statements: readonly string[] = [
  // of_episode: an episode has one in each language.
  `CREATE TABLE transcripts (
    id UUID PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    language VARCHAR(35) CHARACTER SET ascii NOT NULL,
    is_spoken BOOLEAN NOT NULL,
    version INT UNSIGNED NOT NULL DEFAULT 1,
    content JSON NOT NULL,
    cue_count INT UNSIGNED NOT NULL,
    is_timed BOOLEAN NOT NULL,
    origin ENUM('file', 'written', 'laid', 'drafted') NOT NULL,
    name VARCHAR(300) NULL,
    is_unread BOOLEAN NOT NULL DEFAULT FALSE,
    laying ENUM('none', 'working', 'failed', 'overtaken') NOT NULL DEFAULT 'none',
    source_id UUID NULL,
    before_content JSON NULL,
    removed_at DATETIME(3) NULL,
    released JSON NULL,
    created_at DATETIME(3) NOT NULL,
    updated_at DATETIME(3) NOT NULL,
    UNIQUE INDEX of_episode (episode_id, language)
  ) CHARACTER SET utf8mb4`,
  `ALTER TABLE episodes
    ADD transcripts_version INT UNSIGNED NOT NULL DEFAULT 0,
    ADD sent_transcripts INT UNSIGNED NOT NULL DEFAULT 0`,
]
