/** Files that live elsewhere: their address, when it was last asked, and whether it answered as it should. */
export const statements: readonly string[] = [
  `ALTER TABLE files
    MODIFY origin ENUM('upload', 'finish', 'elsewhere') NOT NULL DEFAULT 'upload',
    ADD address VARCHAR(2048) NULL,
    ADD checked_at DATETIME(3) NULL,
    ADD reachable BOOLEAN NOT NULL DEFAULT TRUE`,
]
