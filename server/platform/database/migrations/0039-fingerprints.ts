/** A file that lives elsewhere has no SHA-256 of its bytes there, but one of its address: the name says what it is for. */
export const statements: readonly string[] = ['ALTER TABLE files RENAME COLUMN sha256 TO fingerprint']
