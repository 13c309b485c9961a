/** Addresses that shows had before; they lead to where the show is now. */
export const statements: readonly string[] = [
  `CREATE TABLE past_addresses (
    slug VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    left_at DATETIME(3) NOT NULL,
    INDEX of_show (show_id)
  )`,
]
