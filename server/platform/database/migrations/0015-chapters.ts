/** An episode's own chapters, and which shows have used the pictures that are named within their texts. */
export const statements: readonly string[] = [
  'ALTER TABLE episodes ADD chapters JSON NULL',
  // by_picture: whether a picture is still used, and who may use it.
  `CREATE TABLE picture_uses (
    show_id UUID NOT NULL REFERENCES shows (id) ON DELETE CASCADE,
    picture_id CHAR(64) NOT NULL REFERENCES pictures (id) ON DELETE CASCADE,
    PRIMARY KEY (show_id, picture_id),
    INDEX by_picture (picture_id)
  ) CHARACTER SET utf8mb4`,
]
