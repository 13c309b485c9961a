/**
 * Files by what they are to an episode, sound with a version of its own, released texts with their schema, whether they have
 * changed since, an order for pages of lists, bytes by who holds them.
 */
export const statements: readonly string[] = [
  // of_file: who uses a file, asked at each measuring and by the shelf.
  `CREATE TABLE episode_files (
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    role ENUM('source', 'finished', 'released') NOT NULL,
    file_id UUID NOT NULL REFERENCES files (id),
    PRIMARY KEY (episode_id, role),
    INDEX of_file (file_id, role)
  ) CHARACTER SET utf8mb4`,
  `INSERT INTO episode_files (episode_id, role, file_id)
    SELECT id, 'source', file_id FROM episodes WHERE file_id IS NOT NULL
    UNION ALL SELECT id, 'finished', finished_file_id FROM episodes WHERE finished_file_id IS NOT NULL
    UNION ALL SELECT id, 'released', released_file_id FROM episodes WHERE released_file_id IS NOT NULL`,

  `ALTER TABLE episodes
    ADD sound_version INT UNSIGNED NOT NULL DEFAULT 1,
    ADD is_changed BOOLEAN NOT NULL DEFAULT FALSE`,
  `UPDATE episodes SET is_changed = NOT (
      BINARY title <=> BINARY JSON_VALUE(released_text, '$.title') AND BINARY notes <=> BINARY JSON_VALUE(released_text, '$.notes')
      AND number <=> JSON_VALUE(released_text, '$.number') AND season <=> JSON_VALUE(released_text, '$.season')
      AND kind <=> JSON_VALUE(released_text, '$.kind')
      AND released_file_id <=> IF(recipe IS NULL, file_id, IF(finishing = 'done', finished_file_id, NULL)))
    WHERE released_text IS NOT NULL`,
  `ALTER TABLE episodes CHANGE released_text released JSON NULL`,
  `UPDATE episodes SET released = JSON_OBJECT('schema', 1, 'text', JSON_EXTRACT(released, '$')) WHERE released IS NOT NULL`,

  `ALTER TABLE episodes
    DROP FOREIGN KEY episodes_ibfk_2, DROP FOREIGN KEY episodes_ibfk_3, DROP FOREIGN KEY episodes_ibfk_4`,
  'ALTER TABLE episodes DROP COLUMN file_id, DROP COLUMN released_file_id, DROP COLUMN finished_file_id',

  // in_list: each page of a list begins behind the last entry of the page before it.
  `ALTER TABLE episodes
    ADD order_key BIGINT AS (CASE standing
      WHEN 'draft' THEN -TIMESTAMPDIFF(MICROSECOND, '1970-01-01', updated_at) DIV 1000
      WHEN 'scheduled' THEN TIMESTAMPDIFF(MICROSECOND, '1970-01-01', release_at) DIV 1000
      ELSE -TIMESTAMPDIFF(MICROSECOND, '1970-01-01', release_at) DIV 1000 END) PERSISTENT,
    ADD INDEX in_list (show_id, standing, deleted_at, order_key, id)`,

  'RENAME TABLE deliveries TO past_deliveries',

  // Bytes in the media store, and who holds them: a file or a picture, by its id.
  `CREATE TABLE blobs (
    sha256 CHAR(64) CHARACTER SET ascii PRIMARY KEY,
    came_at DATETIME(3) NOT NULL
  )`,
  `CREATE TABLE blob_holders (
    sha256 CHAR(64) CHARACTER SET ascii NOT NULL REFERENCES blobs (sha256),
    holder VARCHAR(64) CHARACTER SET ascii NOT NULL,
    PRIMARY KEY (sha256, holder),
    INDEX of_holder (holder)
  )`,
  'INSERT IGNORE INTO blobs SELECT sha256, UTC_TIMESTAMP(3) FROM files WHERE address IS NULL',
  'INSERT IGNORE INTO blob_holders SELECT sha256, id FROM files WHERE address IS NULL',
  'INSERT IGNORE INTO blobs SELECT id, UTC_TIMESTAMP(3) FROM pictures',
  'INSERT IGNORE INTO blob_holders SELECT id, id FROM pictures',
  ...[
    'INSERT IGNORE INTO blobs SELECT s.sha256, UTC_TIMESTAMP(3)',
    'INSERT IGNORE INTO blob_holders SELECT s.sha256, p.id',
  ].map(
    into =>
      `${into} FROM pictures p, JSON_TABLE(p.smaller, '$.*' COLUMNS (sha256 CHAR(64) PATH '$.sha256')) s WHERE p.smaller IS NOT NULL`,
  ),

  // Waveforms go to the media store as well; those of before are drawn again.
  'ALTER TABLE files DROP COLUMN waveform, ADD waveform_id CHAR(64) CHARACTER SET ascii NULL',
  `INSERT INTO jobs (id, kind, payload, subject, show_id, run_after, created_at)
    SELECT UUID(), 'measure-file', JSON_OBJECT('fileId', id), id, show_id, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3) FROM files WHERE measuring = 'done' AND address IS NULL`,
  "UPDATE files SET measuring = 'waiting' WHERE measuring = 'done' AND address IS NULL",
]
