/** What the episodes of a show usually begin and end with. */
export const statements: readonly string[] = ['ALTER TABLE shows ADD COLUMN IF NOT EXISTS usual_set JSON NULL']
