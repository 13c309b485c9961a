/** What was written of an episode at each time, by whom. */
export const statements: readonly string[] = [
  // of_episode: the list of an episode's states, and its newest one at each save; by_age: what is too old
  // is cleared away; by_artwork: whether a picture is still used.
  `CREATE TABLE episode_states (
    id UUID PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    version INT UNSIGNED NOT NULL,
    account_id UUID NULL REFERENCES accounts (id) ON DELETE SET NULL,
    act ENUM('begun', 'written', 'filled in', 'many at once') NOT NULL,
    fields JSON NOT NULL,
    text JSON NOT NULL,
    is_sent BOOLEAN NOT NULL DEFAULT FALSE,
    saved_at DATETIME(3) NOT NULL,
    artwork_id CHAR(64) AS (JSON_VALUE(text, '$.artworkId')) PERSISTENT,
    INDEX of_episode (episode_id, saved_at, id),
    INDEX by_age (saved_at),
    INDEX by_artwork (artwork_id)
  ) CHARACTER SET utf8mb4`,
  'ALTER TABLE kept_texts ADD account_id UUID NULL REFERENCES accounts (id) ON DELETE SET NULL',
]
