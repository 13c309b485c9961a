/** Of each episode the few stretches that are written are found without the many that are said. */
export const statements: readonly string[] = ['ALTER TABLE search_passages ADD INDEX episode_id (episode_id, kind)']
