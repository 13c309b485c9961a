/** Whose an upload is: room is kept for one account's uploads only so far that others have some. */
export const statements: readonly string[] = ['ALTER TABLE uploads ADD account_id UUID NULL']
