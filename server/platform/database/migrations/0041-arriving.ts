/** Bytes are stored before they are held; meanwhile they are not cleared away. */
export const statements: readonly string[] = [
  'ALTER TABLE blobs ADD COLUMN arriving_at DATETIME(3) NULL',
  'ALTER TABLE blobs DROP COLUMN came_at',
]
