/** Whose a show is: every account so far keeps every show. Who brought a picture may look at it before a show uses it. */
export const statements: readonly string[] = [
  // of_show: who is to hear of a change of a show.
  `CREATE TABLE memberships (
    account_id UUID NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    role ENUM('keeper', 'maker', 'writer', 'reader') NOT NULL,
    PRIMARY KEY (account_id, show_id),
    INDEX of_show (show_id)
  ) CHARACTER SET utf8mb4`,
  "INSERT INTO memberships (account_id, show_id, role) SELECT a.id, s.id, 'keeper' FROM accounts a JOIN shows s",

  `CREATE TABLE picture_bringers (
    picture_id CHAR(64) NOT NULL REFERENCES pictures (id) ON DELETE CASCADE,
    account_id UUID NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
    PRIMARY KEY (picture_id, account_id)
  ) CHARACTER SET utf8mb4`,
]
