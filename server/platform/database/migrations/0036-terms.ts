/** The terms of the field where the database had others. */
export const statements: readonly string[] = [
  'ALTER TABLE episodes RENAME COLUMN standing TO status',
  'RENAME TABLE travels TO clock_offset',
  'RENAME TABLE changes_together TO bulk_edits',
  `UPDATE bulk_edits SET episodes = REPLACE(episodes, '"standing":', '"status":')`,

  'ALTER TABLE transcripts RENAME COLUMN laying TO alignment',
  "ALTER TABLE transcripts MODIFY origin ENUM('file', 'written', 'laid', 'drafted', 'aligned') NOT NULL",
  "UPDATE transcripts SET origin = 'aligned' WHERE origin = 'laid'",
  "ALTER TABLE transcripts MODIFY origin ENUM('file', 'written', 'aligned', 'drafted') NOT NULL",
  "UPDATE jobs SET kind = 'align-transcript' WHERE kind = 'lay-transcript'",
  "UPDATE jobs SET kind = 'ask-transcription-service' WHERE kind = 'ask-copyist'",
  "UPDATE jobs SET kind = 'enforce-retention' WHERE kind = 'tidy'",

  'ALTER TABLE shows RENAME COLUMN claimed_host TO claimed_domain, RENAME COLUMN host_token TO domain_token',
  `ALTER TABLE shows RENAME COLUMN look TO theme, RENAME COLUMN former_look TO former_theme,
    RENAME COLUMN tried_look TO tried_theme, RENAME COLUMN look_version TO theme_version`,

  `UPDATE files SET findings = REPLACE(findings, '"mend":', '"fix":') WHERE findings LIKE '%"mend":%'`,
  `UPDATE feed_checks SET findings = REPLACE(findings, '"mend":', '"fix":')`,
]
