/** What a release brings about, who is told of it, and how an episode ends. */
export const statements: readonly string[] = [
  // to_retire: what ends is found without looking through what does not.
  `ALTER TABLE episodes
    ADD retire_at DATETIME(3) NULL,
    ADD retire_zone VARCHAR(64) CHARACTER SET ascii NULL,
    ADD keeps_page BOOLEAN NOT NULL DEFAULT FALSE,
    ADD INDEX to_retire (standing, retire_at)`,
  // once: of a moment of an episode everything is told once. untold: what nobody was told of yet.
  `CREATE TABLE notices (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    kind ENUM('released', 'held', 'hour before', 'day before') NOT NULL,
    moment DATETIME(3) NOT NULL,
    created_at DATETIME(3) NOT NULL,
    told_at DATETIME(3) NULL,
    UNIQUE INDEX once (episode_id, kind, moment),
    INDEX untold (told_at, show_id)
  ) CHARACTER SET utf8mb4`,
  // of_account: the last mails to somebody.
  `CREATE TABLE mails (
    id UUID PRIMARY KEY,
    account_id UUID NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
    kind VARCHAR(20) CHARACTER SET ascii NOT NULL,
    subject VARCHAR(300) NOT NULL,
    text MEDIUMTEXT NOT NULL,
    state ENUM('waiting', 'sent', 'given up') NOT NULL DEFAULT 'waiting',
    tries INT UNSIGNED NOT NULL DEFAULT 0,
    problem VARCHAR(300) NULL,
    created_at DATETIME(3) NOT NULL,
    settled_at DATETIME(3) NULL,
    INDEX of_account (account_id, created_at)
  ) CHARACTER SET utf8mb4`,
  // The secret part of the address of somebody's calendar: it is shown again, so it is kept as it is.
  `ALTER TABLE accounts
    ADD unwanted_mail JSON NOT NULL DEFAULT '[]',
    ADD calendar_secret CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NULL,
    ADD UNIQUE INDEX by_calendar (calendar_secret)`,
  "ALTER TABLE events MODIFY kind ENUM('show', 'episode', 'sound', 'upload', 'membership', 'feed', 'clock') NOT NULL",
  // How far the clock was moved, where it can be.
  `CREATE TABLE travels (
    id TINYINT UNSIGNED PRIMARY KEY,
    offset_ms BIGINT NOT NULL
  )`,
]
