/** What addresses answered that notes link to. */
export const statements: readonly string[] = [
  // by_age: what was asked long ago is forgotten.
  `CREATE TABLE asked_links (
    id CHAR(64) CHARACTER SET ascii PRIMARY KEY,
    address VARCHAR(2048) NOT NULL,
    problem VARCHAR(300) NULL,
    asked_at DATETIME(3) NOT NULL,
    INDEX by_age (asked_at)
  ) CHARACTER SET utf8mb4`,
]
