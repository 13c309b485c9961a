/** Pages that makers write for their sites. */
export const statements: readonly string[] = [
  `CREATE TABLE own_pages (
    id UUID PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    slug VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    title VARCHAR(120) NOT NULL,
    content MEDIUMTEXT NOT NULL,
    version INT UNSIGNED NOT NULL DEFAULT 1,
    created_at DATETIME(3) NOT NULL,
    UNIQUE (show_id, slug)
  ) CHARACTER SET utf8mb4`,
]
