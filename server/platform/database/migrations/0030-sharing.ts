/** What a show says of an episode elsewhere; null where it says what the house says. */
export const statements: readonly string[] = ['ALTER TABLE shows ADD share_texts JSON']
