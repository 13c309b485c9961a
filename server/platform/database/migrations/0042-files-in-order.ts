/** A role of an episode may go to several files, in an order. */
export const statements: readonly string[] = [
  `ALTER TABLE episode_files
    ADD COLUMN position SMALLINT UNSIGNED NOT NULL DEFAULT 0 AFTER role,
    DROP PRIMARY KEY,
    ADD PRIMARY KEY (episode_id, role, position)`,
]
