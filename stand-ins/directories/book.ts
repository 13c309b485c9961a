import { createHash, randomInt } from 'node:crypto'
import { type Character, characters, type Want, wants } from './characters'
import { type Artwork, fetchArtwork, fetchShow, missing, type ReadShow } from './feed'
import { afterWorkingDays } from './workingDays'

const hourMs = 3600_000
const dayMs = 24 * hourMs

/** A show that was handed in to a directory. */
export interface Submission {
  id: string
  directory: string
  feedAddress: string
  state: 'reading' | 'to confirm' | 'in review' | 'listed' | 'refused'
  /** Since when it stands so; and until when it is looked at by people. */
  since: number
  reviewUntil: number | null
  /** Why it was refused; or why it could not be read when it was last looked at. */
  why: string | null
  code: string
  show: ReadShow | null
  artwork: { what: Artwork | null; at: number } | null
  etag: string | null
  fetchedAt: number | null
  nextFetchAt: number
  fetches: number
}

/** What becomes of a book of submissions: it goes to `keep` whenever something of it changed, and codes to `mail`. */
export interface Around {
  now: () => number
  mail: (to: string, subject: string, text: string) => Promise<void>
  keep: (submissions: readonly Submission[]) => void
}

/** What the directories have, and what they do as time goes by. */
export function bookOf(kept: readonly Submission[], { now, mail, keep }: Around) {
  const submissions = new Map(kept.map(each => [keyOf(each), each]))
  const busy = new Set<Submission>()
  const save = (): void => keep([...submissions.values()])

  function move(submission: Submission, state: Submission['state'], why: string | null = null): void {
    Object.assign(submission, { state, why, since: now() })
  }

  async function read(submission: Submission, character: Character): Promise<void> {
    const { show, etag } = await fetchShow(
      submission.feedAddress,
      `${character.name.replace(/ /g, '')}/1.0`,
      submission.etag,
    )
    submission.etag = etag
    if (show) submission.show = show
    const address = submission.show!.artwork
    if (!submission.artwork || now() - submission.artwork.at > character.artworkDays * dayMs)
      submission.artwork = { what: address ? await fetchArtwork(address) : null, at: now() }
  }

  /** One look at a feed, and what follows from it. */
  async function look(submission: Submission): Promise<void> {
    const character = characterOf(submission.directory)!
    const [least, most] = character.everyHours
    // The next one is told once this one is over: until then it is this one that is still to come.
    const plan = (): void => {
      submission.fetches++
      submission.nextFetchAt = now() + between(submission, least * hourMs, most * hourMs)
    }
    try {
      await read(submission, character)
      submission.fetchedAt = now()
      submission.why = null
      plan()
    } catch (error) {
      plan()
      const why = (error as Error).message
      if (submission.state === 'reading') move(submission, 'refused', why)
      else submission.why = why
      return
    }
    if (submission.state !== 'reading') return
    const lacks = missing(character.wants, submission.show!, submission.artwork!.what)
    if (lacks.length > 0) return move(submission, 'refused', `It lacks: ${lacks.map(want => wants[want]).join('; ')}.`)
    await mail(
      submission.show!.ownerEmail,
      `${character.name}: the code for ${submission.show!.title}`,
      `Somebody handed “${submission.show!.title}” in to ${character.name}.\n\nIf that was you, confirm it with this code: ${submission.code}\n`,
    )
    move(submission, 'to confirm')
  }

  return {
    /** Hands a show in under a name that whoever hands it in has chosen; the same name twice is the same submission. */
    begin(directory: string, id: string, feedAddress: string): { submission: Submission } | { why: string } {
      const known = submissions.get(`${directory}/${id}`)
      if (known) return { submission: known }
      const other = [...submissions.values()].find(
        each => each.directory === directory && each.feedAddress === feedAddress && each.state !== 'refused',
      )
      if (other)
        return { why: 'This feed was handed in already. It is listed once, and every episode comes by itself.' }
      const submission: Submission = {
        id,
        directory,
        feedAddress,
        state: 'reading',
        since: now(),
        reviewUntil: null,
        why: null,
        code: String(randomInt(100_000, 1_000_000)),
        show: null,
        artwork: null,
        etag: null,
        fetchedAt: null,
        nextFetchAt: now(),
        fetches: 0,
      }
      submissions.set(keyOf(submission), submission)
      save()
      return { submission }
    },

    get: (directory: string, id: string): Submission | null => submissions.get(`${directory}/${id}`) ?? null,

    /** Takes the code that was mailed; false where it is another one, or none is waited for. */
    confirm(submission: Submission, code: string): boolean {
      if (submission.state !== 'to confirm' || submission.code !== code.trim()) return false
      const { reviewDays } = characterOf(submission.directory)!
      if (!reviewDays) move(submission, 'listed')
      else {
        const days = Math.round(between(submission, reviewDays[0], reviewDays[1]))
        submission.reviewUntil = afterWorkingDays(now(), days)
        move(submission, 'in review')
      }
      save()
      return true
    },

    listed: (directory: string): Submission[] =>
      [...submissions.values()].filter(each => each.directory === directory && each.state === 'listed'),

    /** Does what is due: looks at feeds, ends reviews. */
    async tick(): Promise<void> {
      let isChanged = false
      for (const submission of submissions.values()) {
        if (busy.has(submission) || submission.state === 'refused') continue
        if (submission.state === 'in review' && now() >= submission.reviewUntil!) {
          move(submission, 'listed')
          isChanged = true
        }
        if (now() < submission.nextFetchAt) continue
        busy.add(submission)
        isChanged = true
        await look(submission).finally(() => busy.delete(submission))
      }
      if (isChanged) save()
    },
  }
}
export type Book = ReturnType<typeof bookOf>

export const characterOf = (id: string): Character | undefined => characters.find(each => each.id === id)
export const wantsOf = ({ wants: wanted }: Character): { name: Want; words: string }[] =>
  wanted.map(name => ({ name, words: wants[name] }))

const keyOf = ({ directory, id }: Pick<Submission, 'directory' | 'id'>): string => `${directory}/${id}`

/** A number between two, another for each look, the same whenever it is asked. */
function between({ id, fetches }: Pick<Submission, 'id' | 'fetches'>, least: number, most: number): number {
  const digest = createHash('sha256').update(`${id} ${fetches}`).digest()
  return least + ((most - least) * digest.readUInt32BE(0)) / 0xffff_ffff
}
