/** What an episode is put together of, the files that it names, and the sound that is rendered from it. */
export const statements: readonly string[] = [
  'ALTER TABLE episodes ADD COLUMN IF NOT EXISTS mix JSON NULL',
  "ALTER TABLE episode_files MODIFY role ENUM('source', 'finished', 'released', 'mixed') NOT NULL",
  `ALTER TABLE files
    MODIFY origin ENUM('upload', 'finish', 'elsewhere', 'mix') NOT NULL DEFAULT 'upload',
    ADD COLUMN IF NOT EXISTS mix JSON NULL,
    ADD INDEX IF NOT EXISTS by_origin (origin, created_at)`,
]
