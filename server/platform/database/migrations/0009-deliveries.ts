/** What was delivered, for the numbers that are counted from it; and news of what the public is told. */
export const statements: readonly string[] = [
  // Entries come by the thousand a second when an episode is new, so many share a row, packed; see delivery/log.
  `CREATE TABLE delivery_log (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    at DATETIME(3) NOT NULL,
    entries INT UNSIGNED NOT NULL,
    packed MEDIUMBLOB NOT NULL
  )`,
  "ALTER TABLE events MODIFY kind ENUM('show', 'episode', 'sound', 'upload', 'membership', 'feed') NOT NULL",
  // What an upload is for; other roles follow with what can be brought for an episode.
  "ALTER TABLE uploads ADD role ENUM('source') NOT NULL DEFAULT 'source'",
  // by_name: the list of shows begins at a name.
  'ALTER TABLE shows ADD INDEX by_name (name, id)',
]
