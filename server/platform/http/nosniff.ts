/**
 * Nothing here is to be taken for something else than its type says (OWASP HTTP headers cheat sheet). Every answer has it
 * from the start; those that go around the framework bring it along.
 */
export const nosniff = { 'x-content-type-options': 'nosniff' } as const
