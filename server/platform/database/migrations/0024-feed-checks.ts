/** What the rules found in the feed of a show, as it was looked at last. */
export const statements: readonly string[] = [
  // tag: which bytes were looked at.
  `CREATE TABLE feed_checks (
    show_id UUID PRIMARY KEY REFERENCES shows (id) ON DELETE CASCADE,
    tag VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    edition SMALLINT UNSIGNED NOT NULL,
    items INT UNSIGNED NOT NULL,
    findings JSON NOT NULL
  ) CHARACTER SET utf8mb4`,
  'ALTER TABLE shows ADD feed_faults SMALLINT UNSIGNED NOT NULL DEFAULT 0',
]
