/** Host names of shows: the one that is theirs, and the one that somebody says is, with the word that proves it. */
export const statements: readonly string[] = [
  `ALTER TABLE shows
    ADD host_name VARCHAR(253) CHARACTER SET ascii COLLATE ascii_bin UNIQUE,
    ADD claimed_host VARCHAR(253) CHARACTER SET ascii COLLATE ascii_bin,
    ADD host_token CHAR(43) CHARACTER SET ascii COLLATE ascii_bin`,
]
