/** Every kind of job, with what it is about. */
export interface Payloads {
  'read-upload': { id: string }
  'measure-file': { fileId: string }
  'finish-episode': { episodeId: string }
  /** The daily look at a file that lives elsewhere. */
  'check-address': { fileId: string }
  /** One more look shortly before a release. */
  'check-address-once': { fileId: string }
  /** Asks the addresses that an episode's notes link to. */
  'ask-links': { episodeId: string }
  /** Finds when everything of a transcript is said. */
  'align-transcript': { transcriptId: string }
  /** Asks the copyist how far a draft is, and for it. */
  'ask-transcription-service': { draftId: string }
  /** What follows when something of a show went out or was held: mails are written. */
  'tell-people': { showId: string }
  /** Looks at the feed of a show by all rules, whenever it tells something else. */
  'check-feed': { showId: string }
  /** Has the words of a show's episodes ready to be found, whenever it tells something else. */
  'index-words': { showId: string }
  /** Hands a mail to the mail server. */
  'send-mail': { mailId: string }
  /** Tells the hub that a show's feeds have changed. */
  'announce-feed': { showId: string }
  /** Asks a directory how a show stands there. */
  'follow-listing': { listingId: string }
  'clear-blobs': Record<string, never>
  'enforce-retention': Record<string, never>
}

export type JobKind = keyof Payloads

/** Jobs of the same lane run one after the other in a process, those on sound two at once, those that ask others eight; lanes run beside each other, so that none waits for what is slower. */
export type Lane =
  | 'before a release'
  | 'reading'
  | 'network'
  | 'measuring'
  | 'finishing'
  | 'alignment'
  | 'drafting'
  | 'checking'
  | 'telling'
  | 'mail'
  | 'retention'

/** What a job is given beside its payload. */
export interface JobRun {
  /** The job's own, the same in each try. */
  id: string
  /** Says how far it is, from 0 to 1. */
  progress(share: number): void
  /** Aborted when the job is cancelled, takes too long, when another process took it over, or when this one stops. */
  signal: AbortSignal
}

/** What is done for a kind of job. */
export interface JobDefinition<Payload> {
  lane: Lane
  /** A try that takes longer is stopped, and counts as failed. */
  limitMs?: number
  run(payload: Payload, run: JobRun): Promise<void>
  /**
   * Tells whoever waits for the outcome that it failed for the last time, or that its process died in each try; can be called
   * again. Null where nobody waits for it.
   */
  gaveUp: ((payload: Payload) => Promise<void>) | null
}

export type JobList = { readonly [Kind in JobKind]: JobDefinition<Payloads[Kind]> }
