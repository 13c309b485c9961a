/** News of how far a job is, by that name. What nobody has heard yet is heard by it, too. */
export const statements: readonly string[] = [
  "ALTER TABLE events MODIFY kind ENUM('show', 'episode', 'sound', 'progress', 'upload', 'membership', 'feed', 'clock', 'listing') NOT NULL",
  "UPDATE events SET kind = 'progress' WHERE kind = 'sound'",
  "ALTER TABLE events MODIFY kind ENUM('show', 'episode', 'progress', 'upload', 'membership', 'feed', 'clock', 'listing') NOT NULL",
]
