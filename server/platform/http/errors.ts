import type { Fault, ProblemExtension } from '@contract/problem'

/** Every error that leaves the server: its status, what it says to a person, and what to do. */
const catalogue = {
  'bad-input': {
    status: 422,
    title: 'Something in the input cannot be used',
    todo: 'Correct the fields named here and send them again.',
  },
  unreadable: {
    status: 400,
    title: 'The request cannot be read',
    todo: 'Send it as the description of this address says.',
  },
  'method-refused': {
    status: 405,
    title: 'This method is not allowed here',
    todo: 'Use one of the methods that the answer’s Allow header names.',
  },
  'not-acceptable': {
    status: 406,
    title: 'Nothing here is as the request wants it',
    todo: 'Ask with a wider Accept-Encoding.',
  },
  'not-proved': {
    status: 409,
    title: 'The host name is not proved yet',
    todo: 'Put the word there, wait until it can be seen from outside, and look again.',
  },
  'no-such-format': {
    status: 501,
    title: 'This is not written in that format',
    todo: 'Ask for one of the formats named here.',
  },
  'no-room': {
    status: 507,
    title: 'There is no room for this file',
    todo: 'Delete files from the shelf that no episode uses, or make room on the server’s disk.',
  },
  busy: { status: 503, title: 'Too much at once', todo: 'Try again in a moment.' },
  'not-allowed': {
    status: 403,
    title: 'Your part in this show does not reach so far',
    todo: 'Ask the show’s keeper.',
  },
  'not-found': {
    status: 404,
    title: 'There is nothing at this address',
    todo: 'Go back to the list and open it from there.',
  },
  'sign-in-needed': {
    status: 401,
    title: 'You are signed out',
    todo: 'Sign in; what you wrote is kept in this window.',
  },
  'sign-in-refused': { status: 401, title: 'Email or password is wrong', todo: 'Check both and try again.' },
  'too-many-attempts': {
    status: 429,
    title: 'Too many attempts to sign in',
    todo: 'Wait a quarter of an hour, then try again.',
  },
  'too-many-checks': {
    status: 429,
    title: 'Too many feeds checked',
    todo: 'Wait a quarter of an hour, then check it again.',
  },
  'foreign-origin': {
    status: 403,
    title: 'The request came from another site',
    todo: 'Open the studio at its own address and try again there.',
  },
  'account-exists': { status: 409, title: 'The first account exists already', todo: 'Sign in with it.' },
  'address-taken': { status: 409, title: 'Another show lives at this address', todo: 'Choose another address part.' },
  'version-conflict': {
    status: 409,
    title: 'Someone saved a newer version',
    todo: 'Choose which text to keep; both are kept until you do.',
  },
  'not-ready': { status: 422, title: 'The episode is not ready', todo: 'Add what is missing, then try again.' },
  'wrong-status': {
    status: 409,
    title: 'The episode’s status has changed',
    todo: 'Reload it and try again.',
  },
  'picture-refused': {
    status: 422,
    title: 'The picture cannot be used',
    todo: 'Take a larger picture, or for artwork cut it out square as offered.',
  },
  'transcript-refused': {
    status: 422,
    title: 'The file cannot be read as a transcript',
    todo: 'Take a file in WebVTT, SubRip, JSON, HTML or plain text.',
  },
  'file-in-use': {
    status: 409,
    title: 'An episode uses this file',
    todo: 'Give the episode another file first, or leave this one here.',
  },
  'too-large': {
    status: 413,
    title: 'The file is too large',
    todo: 'Export it at a lower bit rate; 128 kbit/s is plenty.',
  },
  'address-refused': {
    status: 422,
    title: 'The file at this address cannot be used',
    todo: 'Correct the address, or upload the file here.',
  },
  'feed-refused': {
    status: 422,
    title: 'There is no feed to be checked',
    todo: 'Look whether it is the address of the feed, or paste the feed itself.',
  },
  'directory-refused': {
    status: 422,
    title: 'The directory does not take it',
    todo: 'Fix what is missing, then submit it again.',
  },
  'already-handed-in': {
    status: 409,
    title: 'It was handed in already',
    todo: 'Nothing to do: new episodes go there by themselves, some hours after their release.',
  },
  'upload-gone': { status: 410, title: 'This upload was cancelled', todo: 'Start the upload again.' },
  unsupported: {
    status: 415,
    title: 'The request is of a kind this address does not take',
    todo: 'Send JSON, or the type the address asks for.',
  },
  unavailable: {
    status: 503,
    title: 'The database does not answer',
    todo: 'Nothing to do: what you write is kept here and saved once it is back.',
  },
  internal: {
    status: 500,
    title: 'Something went wrong on the server',
    todo: 'Try again; if it happens again, read the server log.',
  },
} as const satisfies Record<string, { status: number; title: string; todo: string }>

export type ErrorCode = keyof typeof catalogue

/** An error by its name in the catalogue, with what else the answer has. */
export class AppError extends Error {
  readonly status: number
  readonly title: string
  readonly todo: string

  constructor(
    readonly code: ErrorCode,
    detail: string,
    readonly faults?: Fault[],
    readonly extension?: ProblemExtension,
  ) {
    super(detail)
    this.status = catalogue[code].status
    this.title = catalogue[code].title
    this.todo = catalogue[code].todo
  }
}

/** A single bad input: the field, the value that stood there (shortened), the rule it breaks. */
export function badInput(field: string, value: unknown, rule: string): AppError {
  return new AppError('bad-input', `${field}: ${rule}`, [{ field, value: shown(value), rule }])
}

/** A value as an error shows it: at most 60 characters, its length named when it is longer. */
export function shown(value: unknown): string {
  const text =
    typeof value === 'string' ? value : value === undefined ? '(nothing)' : (JSON.stringify(value) ?? String(value))
  const letters = [...text.toWellFormed()]
  return letters.length <= 60
    ? text
    : `${letters.slice(0, 48).join('')}… (${letters.length.toLocaleString('en')} characters)`
}
