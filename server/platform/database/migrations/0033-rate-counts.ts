/** How often something was done within a while, by whom: signing in so far, and now whatever has a limit. */
export const statements: readonly string[] = [
  'RENAME TABLE sign_in_counts TO rate_counts',
  'ALTER TABLE rate_counts MODIFY kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
]
