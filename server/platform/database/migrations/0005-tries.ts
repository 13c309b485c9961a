/** Tries of a job that failed are told from those whose process ended. */
export const statements: readonly string[] = ['ALTER TABLE jobs ADD failures INT UNSIGNED NOT NULL DEFAULT 0']
