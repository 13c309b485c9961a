/** When a show usually goes out, and where its listeners are. */
export const statements: readonly string[] = [
  `ALTER TABLE shows
    ADD rhythm JSON NULL,
    ADD listener_zones JSON NOT NULL DEFAULT '[]'`,
]
