/** What is uploaded as a piece of what an episode is put together of, and where in their row it goes. */
export const statements: readonly string[] = [
  `ALTER TABLE uploads
    MODIFY role ENUM('source', 'piece') NOT NULL DEFAULT 'source',
    ADD COLUMN IF NOT EXISTS position SMALLINT UNSIGNED NULL`,
]
