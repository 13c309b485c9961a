/** What a feed says beside what every feed says, its states as they were served, who fetched it, and where it is listed. */
export const statements: readonly string[] = [
  "ALTER TABLE shows ADD feed_facts JSON NOT NULL DEFAULT '{}'",
  // once: of a revision a feed is kept once, whichever process wrote it. The newest of a name is the one that is served.
  `CREATE TABLE feed_states (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    name VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    revision BIGINT UNSIGNED NOT NULL,
    at DATETIME(3) NOT NULL,
    changed_at DATETIME(3) NOT NULL,
    digest CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    written_by CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    bytes INT UNSIGNED NOT NULL,
    words JSON NULL,
    gzip LONGBLOB NOT NULL,
    brotli LONGBLOB NULL,
    UNIQUE INDEX once (show_id, name, revision)
  )`,
  // once: of whoever asks for a feed there is one row, with how often and what they got.
  `CREATE TABLE feed_readers (
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    name VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    agent VARCHAR(120) NOT NULL,
    address VARCHAR(45) CHARACTER SET ascii NOT NULL,
    first_at DATETIME(3) NOT NULL,
    last_at DATETIME(3) NOT NULL,
    status SMALLINT UNSIGNED NOT NULL,
    has_at DATETIME(3) NULL,
    whole_count INT UNSIGNED NOT NULL,
    same_count INT UNSIGNED NOT NULL,
    PRIMARY KEY (show_id, name, agent, address),
    INDEX latest (show_id, last_at)
  ) CHARACTER SET utf8mb4`,
  // once: a show is handed to a directory once; those that are followed by hand have none.
  `CREATE TABLE directory_listings (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    directory VARCHAR(40) CHARACTER SET ascii NULL,
    name VARCHAR(80) NOT NULL,
    submission_id UUID NULL,
    state ENUM('reading', 'to confirm', 'in review', 'listed', 'refused') NOT NULL,
    since DATETIME(3) NOT NULL,
    submitted_at DATETIME(3) NOT NULL,
    why VARCHAR(500) NULL,
    sent_to VARCHAR(300) NULL,
    is_closed BOOLEAN NOT NULL DEFAULT FALSE,
    listing_address VARCHAR(2000) NULL,
    fetched_at DATETIME(3) NULL,
    next_fetch_at DATETIME(3) NULL,
    guids JSON NOT NULL DEFAULT '[]',
    problem VARCHAR(300) NULL,
    overdue INT UNSIGNED NOT NULL DEFAULT 0,
    UNIQUE INDEX once (show_id, directory)
  ) CHARACTER SET utf8mb4`,
  // once: a strand's address part is its own in the show.
  `CREATE TABLE strands (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    slug VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    name VARCHAR(120) NOT NULL,
    description TEXT NULL,
    artwork_id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
    goes_by ENUM('hand', 'season', 'tag', 'kind') NOT NULL,
    value VARCHAR(120) NULL,
    version INT UNSIGNED NOT NULL DEFAULT 1,
    created_at DATETIME(3) NOT NULL,
    UNIQUE INDEX once (show_id, slug)
  ) CHARACTER SET utf8mb4`,
  `CREATE TABLE strand_episodes (
    strand_id UUID NOT NULL REFERENCES strands (id) ON DELETE CASCADE,
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    PRIMARY KEY (strand_id, episode_id)
  )`,
  "ALTER TABLE events MODIFY kind ENUM('show', 'episode', 'sound', 'upload', 'membership', 'feed', 'clock', 'listing') NOT NULL",
]
