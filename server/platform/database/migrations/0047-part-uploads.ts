/** What is uploaded as a piece or a bed of what an episode is put together of, and where in the row of pieces it goes. */
export const statements: readonly string[] = [
  `ALTER TABLE uploads
    MODIFY role ENUM('source', 'piece', 'bed') NOT NULL DEFAULT 'source',
    ADD COLUMN IF NOT EXISTS position SMALLINT UNSIGNED NULL`,
]
