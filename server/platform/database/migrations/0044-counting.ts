import { unassigned } from '../months'

/** Downloads are counted from the log of deliveries. What it tells of single listeners goes by the month; sums stay. */
export const statements: readonly string[] = [
  // made_at: a key is deleted two days after it was made.
  `CREATE TABLE day_keys (
    day DATE PRIMARY KEY,
    secret BINARY(32) NOT NULL,
    made_at DATETIME(3) NOT NULL
  )`,
  'ALTER TABLE delivery_log DROP PRIMARY KEY, ADD PRIMARY KEY (id, at)',
  // uncounted: what is counted next.
  'ALTER TABLE delivery_log ADD is_counted BOOLEAN NOT NULL DEFAULT FALSE, ADD INDEX uncounted (is_counted, id)',
  `ALTER TABLE delivery_log PARTITION BY RANGE COLUMNS (at) (PARTITION ${unassigned} VALUES LESS THAN (MAXVALUE))`,
  // Who counts holds this row.
  `CREATE TABLE counting (
    id TINYINT UNSIGNED PRIMARY KEY,
    counted_at DATETIME(3) NULL,
    coarse_until DATE NULL
  )`,
  // Names of programs and of places.
  `CREATE TABLE labels (
    id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    text VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL UNIQUE
  )`,
  // What a listener fetched of an episode on a day (UTC). What of it and how is told in spans and fetches_kept, by core/counting.
  `CREATE TABLE listener_days (
    show_id UUID NOT NULL,
    day DATE NOT NULL,
    episode_id UUID NOT NULL,
    who BINARY(8) NOT NULL,
    first_at DATETIME(3) NOT NULL,
    last_at DATETIME(3) NOT NULL,
    fetches INT UNSIGNED NOT NULL,
    refusal TINYINT UNSIGNED NULL,
    app INT UNSIGNED NOT NULL,
    device TINYINT UNSIGNED NOT NULL,
    place INT UNSIGNED NULL,
    source TINYINT UNSIGNED NOT NULL,
    is_coarse BOOLEAN NOT NULL,
    spans BLOB NOT NULL,
    fetches_kept BLOB NOT NULL,
    PRIMARY KEY (show_id, day, episode_id, who)
  ) PARTITION BY RANGE COLUMNS (day) (PARTITION ${unassigned} VALUES LESS THAN (MAXVALUE))`,
  // Who fetched a feed on a day (UTC).
  `CREATE TABLE feed_days (
    show_id UUID NOT NULL,
    day DATE NOT NULL,
    who BINARY(8) NOT NULL,
    PRIMARY KEY (show_id, day, who)
  ) PARTITION BY RANGE COLUMNS (day) (PARTITION ${unassigned} VALUES LESS THAN (MAXVALUE))`,
  // Sums of a show on a day (UTC) by a dimension; by the day also of each episode, else of all (the nil UUID).
  `CREATE TABLE download_sums (
    show_id UUID NOT NULL,
    dimension TINYINT UNSIGNED NOT NULL,
    episode_id UUID NOT NULL,
    day DATE NOT NULL,
    label INT UNSIGNED NOT NULL,
    downloads INT NOT NULL,
    PRIMARY KEY (show_id, dimension, episode_id, day, label)
  )`,
  // What came of an episode on a day (UTC) by all that is told apart together; place is 0 where none is known.
  `CREATE TABLE download_traits (
    show_id UUID NOT NULL,
    episode_id UUID NOT NULL,
    day DATE NOT NULL,
    app INT UNSIGNED NOT NULL,
    device TINYINT UNSIGNED NOT NULL,
    place INT UNSIGNED NOT NULL,
    source TINYINT UNSIGNED NOT NULL,
    downloads INT NOT NULL,
    PRIMARY KEY (show_id, episode_id, day, app, device, place, source)
  )`,
  // The first days of an episode, by the hour.
  `CREATE TABLE download_hours (
    show_id UUID NOT NULL,
    episode_id UUID NOT NULL,
    hour DATETIME NOT NULL,
    downloads INT NOT NULL,
    PRIMARY KEY (show_id, episode_id, hour)
  )`,
  // What somebody noted of a day, which curves show.
  `CREATE TABLE day_marks (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    day DATE NOT NULL,
    words VARCHAR(80) NOT NULL,
    INDEX of_show (show_id, day)
  )`,
  // Logs of others that were brought in: how far, and the SHA-256 of what was read of each until there.
  `CREATE TABLE brought_logs (
    digest CHAR(64) CHARACTER SET ascii PRIMARY KEY,
    read_bytes BIGINT UNSIGNED NOT NULL,
    name VARCHAR(255) NOT NULL,
    line_count INT UNSIGNED NOT NULL,
    delivery_count INT UNSIGNED NOT NULL,
    at DATETIME(3) NOT NULL
  )`,
]
