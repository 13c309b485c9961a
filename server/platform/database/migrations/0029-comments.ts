/** What listeners write to episodes, and whom a maker wants to hear nothing more of. */
export const statements: readonly string[] = [
  // comment_salt: by it addresses become what tells them apart and nothing else.
  'ALTER TABLE shows ADD takes_comments BOOLEAN NOT NULL DEFAULT FALSE, ADD comment_salt CHAR(32) CHARACTER SET ascii COLLATE ascii_bin',
  // by_state: the list of a show, those that wait first. lately: how much came from somebody of late.
  `CREATE TABLE comments (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    name VARCHAR(80) NOT NULL,
    words TEXT NOT NULL,
    answer TEXT,
    state ENUM('waiting', 'shown', 'hidden') NOT NULL DEFAULT 'waiting',
    asker CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    came_at DATETIME(3) NOT NULL,
    version INT UNSIGNED NOT NULL DEFAULT 1,
    INDEX by_state (show_id, state, came_at),
    INDEX lately (show_id, came_at, asker),
    INDEX of_episode (episode_id, state)
  ) CHARACTER SET utf8mb4`,
  `CREATE TABLE comment_bans (
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    asker CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    name VARCHAR(80) NOT NULL,
    banned_at DATETIME(3) NOT NULL,
    PRIMARY KEY (show_id, asker)
  ) CHARACTER SET utf8mb4`,
  "ALTER TABLE notices MODIFY kind ENUM('released', 'held', 'hour before', 'day before', 'commented') NOT NULL",
]
