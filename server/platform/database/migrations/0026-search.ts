/** What listeners can find of the episodes that are out: stretches of it with their words, by the full text. */
export const statements: readonly string[] = [
  // number: stands before each of a show's words, so that the words of one show are found without those of the others.
  // revision: of the show, as far as its words are there.
  `CREATE TABLE search_shows (
    number INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    show_id UUID NOT NULL UNIQUE REFERENCES shows (id) ON DELETE CASCADE,
    revision BIGINT UNSIGNED NOT NULL DEFAULT 0
  ) CHARACTER SET utf8mb4`,
  // state: which form of the episode its words are of.
  `CREATE TABLE search_episodes (
    episode_id UUID PRIMARY KEY REFERENCES episodes (id) ON DELETE CASCADE,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    state CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL
  ) CHARACTER SET utf8mb4`,
  `CREATE TABLE search_passages (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES search_episodes (episode_id) ON DELETE CASCADE,
    kind VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    passage JSON NOT NULL,
    words MEDIUMTEXT CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    FULLTEXT (words)
  ) CHARACTER SET utf8mb4`,
]
