/** By which edition of what makes them checks and words were made is told by letters that follow from its text. */
export const statements: readonly string[] = [
  'ALTER TABLE feed_checks MODIFY edition CHAR(16) CHARACTER SET ascii NOT NULL',
  "ALTER TABLE search_shows ADD COLUMN edition CHAR(16) CHARACTER SET ascii NOT NULL DEFAULT '' AFTER revision",
]
