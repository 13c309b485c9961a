/** Whether a show is only for its own listeners can be asked of the database; it stays one of the facts of its feed. */
export const statements: readonly string[] = [
  "ALTER TABLE shows ADD is_private BOOLEAN AS (COALESCE(JSON_VALUE(feed_facts, '$.isPrivate'), '0') = '1') STORED",
]
