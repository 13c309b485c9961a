/** Attempts counted in one step, pictures in sizes and public by use, provisional artwork, chapters of files, sides for one channel. */
export const statements: readonly string[] = [
  // The key is asked and counted up at every attempt to sign in.
  `CREATE TABLE sign_in_counts (
    kind ENUM('email', 'address') NOT NULL,
    subject VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
    since DATETIME(3) NOT NULL,
    attempts INT UNSIGNED NOT NULL,
    PRIMARY KEY (kind, subject),
    INDEX by_time (since)
  ) CHARACTER SET utf8mb4`,
  'DROP TABLE sign_in_attempts',

  'ALTER TABLE pictures ADD smaller JSON NULL, ADD is_public BOOLEAN NOT NULL DEFAULT FALSE',
  'UPDATE pictures SET is_public = TRUE WHERE id IN (SELECT artwork_id FROM shows)',
  'ALTER TABLE shows ADD artwork_is_provisional BOOLEAN NOT NULL DEFAULT FALSE',

  "ALTER TABLE files ADD chapters JSON NOT NULL DEFAULT '[]'",

  // Recipes of before mixed both sides into one channel where one was wanted.
  "UPDATE episodes SET recipe = JSON_SET(recipe, '$.oneChannel', 'both sides') WHERE recipe IS NOT NULL",
  "UPDATE episodes SET finished_with = JSON_SET(finished_with, '$.recipe.oneChannel', 'both sides') WHERE finished_with IS NOT NULL",
  "UPDATE shows SET recipe = JSON_SET(recipe, '$.oneChannel', 'both sides') WHERE recipe IS NOT NULL",

  // waiting: the regular look for uploads that are complete, abandoned or stuck.
  'ALTER TABLE uploads ADD INDEX waiting (state, created_at)',
]
