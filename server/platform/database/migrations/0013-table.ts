/** All episodes of a show: their words to be found by, and what was done to many at once. */
export const statements: readonly string[] = [
  // by_words: the search over titles, hooks, notes, tags and people.
  `ALTER TABLE episodes
    ADD words MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci AS (
      CONCAT_WS(' ', title, hook, REGEXP_REPLACE(notes, '<[^>]*>', ' '),
        JSON_EXTRACT(tags, '$[*]'), JSON_EXTRACT(people, '$[*].name'))) PERSISTENT,
    ADD FULLTEXT INDEX by_words (words)`,
  // by_age: what cannot be taken back any more is cleared away.
  `CREATE TABLE changes_together (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    account_id UUID NULL REFERENCES accounts (id) ON DELETE SET NULL,
    act JSON NOT NULL,
    episodes JSON NOT NULL,
    taken_back BOOLEAN NOT NULL DEFAULT FALSE,
    at DATETIME(3) NOT NULL,
    INDEX by_age (at)
  ) CHARACTER SET utf8mb4`,
]
