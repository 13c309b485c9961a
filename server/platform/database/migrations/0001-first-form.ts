/** Accounts, shows, files, episodes, uploads, jobs. */
export const statements: readonly string[] = [
  `CREATE TABLE accounts (
    id UUID PRIMARY KEY,
    email VARCHAR(254) NOT NULL UNIQUE,
    password_hash VARCHAR(255) NOT NULL,
    created_at DATETIME(3) NOT NULL
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE sessions (
    token_hash CHAR(64) PRIMARY KEY,
    account_id UUID NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
    created_at DATETIME(3) NOT NULL,
    expires_at DATETIME(3) NOT NULL
  ) CHARACTER SET utf8mb4`,

  // Counted by address and by email over the last quarter of an hour at every attempt to sign in.
  `CREATE TABLE sign_in_attempts (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    address VARCHAR(64) NOT NULL,
    email VARCHAR(254) NOT NULL,
    at DATETIME(3) NOT NULL,
    INDEX by_address (address, at),
    INDEX by_email (email, at)
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE pictures (
    id CHAR(64) PRIMARY KEY,
    type VARCHAR(40) NOT NULL,
    width_px INT UNSIGNED NOT NULL,
    height_px INT UNSIGNED NOT NULL,
    bytes BIGINT UNSIGNED NOT NULL,
    created_at DATETIME(3) NOT NULL
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE shows (
    id UUID PRIMARY KEY,
    slug VARCHAR(60) NOT NULL UNIQUE,
    name VARCHAR(120) NOT NULL,
    description TEXT NOT NULL,
    language VARCHAR(35) NOT NULL,
    author VARCHAR(120) NOT NULL,
    owner_email VARCHAR(254) NOT NULL,
    category VARCHAR(60) NOT NULL,
    subcategory VARCHAR(60) NULL,
    explicit BOOLEAN NOT NULL,
    type ENUM('episodic', 'serial') NOT NULL,
    zone VARCHAR(64) NOT NULL,
    artwork_id CHAR(64) NOT NULL REFERENCES pictures (id),
    podcast_guid UUID NOT NULL,
    feed_revision BIGINT UNSIGNED NOT NULL DEFAULT 0,
    feed_changed_at DATETIME(3) NOT NULL,
    version INT UNSIGNED NOT NULL DEFAULT 1,
    created_at DATETIME(3) NOT NULL
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE files (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id),
    sha256 CHAR(64) NOT NULL,
    name VARCHAR(255) NOT NULL,
    type VARCHAR(40) NOT NULL,
    bytes BIGINT UNSIGNED NOT NULL,
    duration_ms INT UNSIGNED NOT NULL,
    codec VARCHAR(20) NOT NULL,
    bit_rate_bps INT UNSIGNED NOT NULL,
    sample_rate_hz INT UNSIGNED NOT NULL,
    channels TINYINT UNSIGNED NOT NULL,
    tags JSON NOT NULL,
    picture_id CHAR(64) NULL REFERENCES pictures (id),
    findings JSON NOT NULL,
    waveform BLOB NOT NULL,
    created_at DATETIME(3) NOT NULL,
    UNIQUE INDEX one_of_a_content (show_id, sha256)
  ) CHARACTER SET utf8mb4`,

  // due: the release clock asks for it twice a second. in_feed: each build of a feed. page: each visit of a public page.
  `CREATE TABLE episodes (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id),
    guid UUID NOT NULL UNIQUE,
    slug VARCHAR(80) NULL,
    title VARCHAR(300) NOT NULL DEFAULT '',
    number INT UNSIGNED NULL,
    season INT UNSIGNED NULL,
    kind ENUM('full', 'trailer', 'bonus') NOT NULL DEFAULT 'full',
    notes MEDIUMTEXT NOT NULL,
    file_id UUID NULL REFERENCES files (id),
    standing ENUM('draft', 'scheduled', 'released', 'retired') NOT NULL DEFAULT 'draft',
    release_at DATETIME(3) NULL,
    release_zone VARCHAR(64) NULL,
    released_text JSON NULL,
    released_file_id UUID NULL REFERENCES files (id),
    version INT UNSIGNED NOT NULL DEFAULT 1,
    created_at DATETIME(3) NOT NULL,
    updated_at DATETIME(3) NOT NULL,
    deleted_at DATETIME(3) NULL,
    INDEX due (standing, release_at),
    INDEX in_feed (show_id, standing, release_at),
    UNIQUE INDEX page (show_id, slug)
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE kept_texts (
    id UUID PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    from_version INT UNSIGNED NOT NULL,
    text JSON NOT NULL,
    saved_at DATETIME(3) NOT NULL,
    INDEX of_episode (episode_id, saved_at)
  ) CHARACTER SET utf8mb4`,

  `CREATE TABLE uploads (
    id CHAR(32) PRIMARY KEY,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    file_name VARCHAR(255) NOT NULL,
    bytes BIGINT UNSIGNED NOT NULL,
    state ENUM('receiving', 'reading', 'done', 'refused') NOT NULL DEFAULT 'receiving',
    refusal JSON NULL,
    created_at DATETIME(3) NOT NULL,
    INDEX of_episode (episode_id, created_at)
  ) CHARACTER SET utf8mb4`,

  // open_first: each process asks for the next job that nobody holds.
  `CREATE TABLE jobs (
    id UUID PRIMARY KEY,
    kind VARCHAR(40) NOT NULL,
    payload JSON NOT NULL,
    state ENUM('open', 'done', 'failed') NOT NULL DEFAULT 'open',
    attempts INT UNSIGNED NOT NULL DEFAULT 0,
    run_after DATETIME(3) NOT NULL,
    held_until DATETIME(3) NULL,
    error TEXT NULL,
    created_at DATETIME(3) NOT NULL,
    INDEX open_first (state, run_after)
  ) CHARACTER SET utf8mb4`,
]
