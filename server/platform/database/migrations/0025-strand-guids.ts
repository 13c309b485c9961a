/** What a strand is known by, made once; some houses had it with the listeners of strands. */
export const statements: readonly string[] = [
  'ALTER TABLE strands ADD COLUMN IF NOT EXISTS podcast_guid UUID NOT NULL DEFAULT (UUID())',
]
