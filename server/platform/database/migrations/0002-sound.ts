/** What was measured, how files are finished, what was delivered, and how far jobs are. */
export const statements: readonly string[] = [
  `ALTER TABLE files
    MODIFY waveform MEDIUMBLOB NULL,
    ADD sound_from_bytes BIGINT UNSIGNED NULL,
    ADD sound_to_bytes BIGINT UNSIGNED NULL,
    ADD measurement JSON NULL,
    ADD measuring ENUM('waiting', 'done', 'failed') NOT NULL DEFAULT 'waiting',
    ADD origin ENUM('upload', 'finish') NOT NULL DEFAULT 'upload',
    ADD INDEX shelf (show_id, created_at)`,

  // Waveforms of the first form are drawn again by the jobs below.
  'UPDATE files SET waveform = NULL',

  `ALTER TABLE episodes
    ADD recipe JSON NULL,
    ADD finishing ENUM('none', 'working', 'done', 'failed') NOT NULL DEFAULT 'none',
    ADD finished_file_id UUID NULL REFERENCES files (id),
    ADD finished_with JSON NULL,
    ADD finish_problem JSON NULL`,

  'ALTER TABLE shows ADD recipe JSON NULL',

  // by_episode: each fetch of audio that is not the current one asks whether it was delivered before.
  `CREATE TABLE deliveries (
    episode_id UUID NOT NULL REFERENCES episodes (id) ON DELETE CASCADE,
    file_id UUID NOT NULL REFERENCES files (id),
    until DATETIME(3) NOT NULL,
    PRIMARY KEY by_episode (episode_id, file_id)
  ) CHARACTER SET utf8mb4`,

  // of_subject: the desk asks how far the work on its episode's sound is, while there is some.
  `ALTER TABLE jobs
    MODIFY state ENUM('open', 'done', 'failed', 'cancelled') NOT NULL DEFAULT 'open',
    ADD subject UUID NULL,
    ADD progress DOUBLE NOT NULL DEFAULT 0,
    ADD begun_at DATETIME(3) NULL,
    ADD INDEX of_subject (subject, state)`,

  `INSERT INTO jobs (id, kind, payload, subject, run_after, created_at)
    SELECT UUID(), 'measure-file', JSON_OBJECT('fileId', id), id, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3) FROM files`,
]
