/** What has changed, for windows that listen; kept for a day. */
export const statements: readonly string[] = [
  // by_time: what a window has missed since it last heard; and what is old is cleared away.
  `CREATE TABLE events (
    number BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    kind ENUM('show', 'episode', 'sound', 'upload', 'membership') NOT NULL,
    show_id UUID NOT NULL,
    subject UUID NOT NULL,
    at DATETIME(3) NOT NULL,
    INDEX by_time (at)
  ) CHARACTER SET utf8mb4`,
  'ALTER TABLE jobs ADD show_id UUID NULL',
]
