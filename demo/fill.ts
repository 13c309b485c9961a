import { randomBytes } from 'node:crypto'
import { readFile, stat } from 'node:fs/promises'
import { join, parse, resolve } from 'node:path'
import { DateTime } from 'luxon'
import type { Episode } from '@contract/episodes'
import { chapterFrom } from '@core/chapters/chapters'
import { type Rhythm, weekdays } from '@core/release/rhythm'
import { accountService } from '@server/people/accounts/service'
import { MovableClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { commentService } from '@server/site/comments/service'
import { commentTaking } from '@server/site/comments/taking'
import { releasedEpisodes } from '@server/show/episodes/released'
import { episodeService } from '@server/show/episodes/service'
import { currentFeed, mainFeed } from '@server/feed/feeds/service'
import { finishingService } from '@server/production/finishing/service'
import { jobList } from '@server/app/jobList'
import type { Lane } from '@server/platform/jobs/kinds'
import { openPlatform } from '@server/app/openPlatform'
import type { Platform } from '@server/platform/platform'
import { releaseService } from '@server/release/releases/service'
import { houseScope, type Scope } from '@server/people/access/scope'
import { ownPageService } from '@server/site/ownPages/service'
import { pictureService } from '@server/media/pictures/service'
import { Show } from '@server/show/shows/models'
import { showService } from '@server/show/shows/service'
import { strandService } from '@server/show/strands/service'
import { transcriptService } from '@server/words/transcripts/service'
import { moveClock } from '@server/app/clockOffset/clock'
import { uploadService } from '@server/production/uploads/service'
import { fillFetches } from './fetches'
import { type DemoEpisode, type DemoShow, demoAccount, demoShows } from './scenario'

/** Fills an empty house with the demo, by the same services that people's clicks reach, with a clock that is moved along. */
export async function fillDemo(platform: Platform, clock: MovableClock, today: Date, folder: string): Promise<void> {
  platform.jobs.use(jobList(platform))
  const accounts = accountService(platform)
  const { id: accountId } = (await accounts.accountOf(await accounts.createFirst(demoAccount)))!
  for (const show of demoShows) await fillShow(platform, clock, today, folder, accountId, show)
}

async function fillShow(
  platform: Platform,
  clock: MovableClock,
  today: Date,
  folder: string,
  accountId: string,
  show: DemoShow,
): Promise<void> {
  const releaseAt = ({ dayOffset }: DemoEpisode): DateTime => {
    const [hour, minute] = show.usualTime.split(':').map(Number)
    return DateTime.fromJSDate(today, { zone: show.facts.zone })
      .plus({ days: dayOffset })
      .set({ hour, minute, second: 0, millisecond: 0 })
  }
  clock.moveTo(releaseAt(show.episodes[0]!).minus({ days: 3 }).toJSDate())
  const artwork = await pictureService(platform).addArtwork(
    accountId,
    await readFile(join(folder, 'artwork', show.artwork)),
  )
  const shows = showService(platform)
  const { id: showId, version } = await shows.create(accountId, { ...show.facts, artworkId: artwork.id })
  const { usualTime, everyWeeks, listenerZones, feedFacts } = show
  const rhythm = rhythmFrom(releaseAt(show.episodes[0]!), usualTime, everyWeeks)
  await shows.change(
    { ...houseScope({ id: showId, showId }), accountId },
    { version, rhythm, listenerZones, feedFacts, hosts: [{ name: show.facts.author, role: 'Host', address: null }] },
  )
  for (const strand of show.strands)
    await strandService(platform).create(houseScope({ id: showId, showId }), { ...strand, artworkId: null })
  for (const episode of show.episodes) {
    await fillEpisode(platform, clock, today, folder, { showId, accountId }, show.facts, episode, releaseAt(episode))
    // Somebody fetches the feed between the releases.
    await currentFeed(platform, await Show.findByPk(showId, { rejectOnEmpty: true }), mainFeed)
  }
  await fillSite(platform, houseScope({ id: showId, showId }), show)
  clock.moveTo(today)
  await fillFetches(platform, showId, today)
}

/** Pages of the maker's own, and what listeners wrote to the first episode. */
async function fillSite(platform: Platform, scope: Scope, { pages, comments }: DemoShow): Promise<void> {
  const ownPages = ownPageService(platform)
  for (const { title, content } of pages) {
    const made = (await ownPages.create(scope, { title })).pages.at(-1)!
    await ownPages.change({ ...scope, id: made.id }, { version: made.version, title, content })
  }
  if (comments.length === 0) return
  const service = commentService(platform)
  await service.open(scope, true)
  const show = await Show.findByPk(scope.showId, { rejectOnEmpty: true })
  const [first] = await releasedEpisodes(scope.showId, 'everybody')
  for (const [at, { name, words, answer }] of comments.entries()) {
    await commentTaking(platform).take(show, first!, { name, words, trap: '' }, `192.0.2.${at}`)
    const [written] = (await service.list(scope, { state: 'waiting' })).comments
    if (answer !== null)
      await service.change({ ...scope, id: written!.id }, { version: written!.version, state: 'shown', answer })
  }
}

/** A rhythm by weeks, from the day of the first release on. */
const rhythmFrom = (first: DateTime, time: string, everyWeeks: number): Rhythm => ({
  unit: 'week',
  every: everyWeeks,
  days: [weekdays[first.weekday - 1]!],
  nth: null,
  monthDay: null,
  time,
  from: first.toISODate()!,
  leftOut: [],
})

async function fillEpisode(
  platform: Platform,
  clock: MovableClock,
  today: Date,
  folder: string,
  { showId, accountId }: Pick<Scope, 'showId' | 'accountId'>,
  { zone, author }: DemoShow['facts'],
  wanted: DemoEpisode,
  releaseAt: DateTime,
): Promise<void> {
  const episodes = episodeService(platform)
  const releases = releaseService(platform)
  clock.moveTo(new Date(Math.min(+releaseAt.minus({ hours: 20 }), +today - 60_000)))
  const { id } = await episodes.create(houseScope({ id: showId, showId }), {})
  const scope = { ...houseScope({ id, showId }), accountId }
  if (wanted.sound) await bring(platform, scope, join(folder, 'sounds', wanted.sound))
  const { version } = await episodes.get(scope)
  const { title, number, notes, hook = '', tags = [], guests } = wanted
  const chapters =
    wanted.chapters?.map(([seconds, name]) => chapterFrom({ fromMs: Math.round(seconds * 1000), title: name })) ?? null
  const soundbites = (wanted.soundbites ?? []).map(([from, to, name], index) => ({
    id: `soundbite-${index + 1}`,
    fromMs: Math.round(from * 1000),
    toMs: Math.round(to * 1000),
    title: name,
  }))
  const people = guests
    ? [
        { name: author, role: 'Host' as const, address: null },
        ...guests.map(name => ({ name, role: 'Guest' as const, address: null })),
      ]
    : []
  const artwork = wanted.artwork
    ? await pictureService(platform).addArtwork(accountId!, await readFile(join(folder, 'artwork', wanted.artwork)))
    : null
  const written = await episodes.change(scope, {
    version,
    text: {
      ...(artwork && { artworkId: artwork.id }),
      title,
      number,
      notes,
      hook,
      tags: [...tags],
      people,
      chapters,
      soundbites,
    },
  })
  if (wanted.status === 'released' && wanted.sound) await transcribe(platform, scope, folder, wanted.sound)
  if (wanted.status === 'draft') return
  const { version: ready } = wanted.finished ? await finish(platform, scope) : written
  if (wanted.status === 'released') {
    clock.moveTo(releaseAt.toJSDate())
    await releases.release(scope, { version: ready, when: { kind: 'now' } })
    return
  }
  await releases.release(scope, {
    version: ready,
    when: { kind: 'at', local: releaseAt.toFormat("yyyy-MM-dd'T'HH:mm"), zone },
  })
}

/** Finishes an episode by its show's usual recipe, as one press would. */
async function finish(platform: Platform, scope: Scope): Promise<Episode> {
  const episodes = episodeService(platform)
  const { usual, version } = await episodes.sound(scope)
  await finishingService(platform).begin(scope, version, { ...usual, levelling: 0.5 })
  await work(platform, 'measuring', 'finishing')
  return episodes.get(scope)
}

/** Brings what is said in a sound, as it was laid over it once. */
async function transcribe(platform: Platform, scope: Scope, folder: string, sound: string): Promise<void> {
  const words = await readFile(join(folder, 'sounds/spoken', `${parse(sound).name}.vtt`))
  await transcriptService(platform).bring(scope, { language: 'en-gb', name: '' }, words)
}

async function work({ jobs }: Platform, ...lanes: Lane[]): Promise<void> {
  for (const lane of lanes) while (await jobs.runNext(lane));
}

/** Brings a sound the way an upload does, from the moment on when its last byte has arrived. */
async function bring(platform: Platform, scope: Scope, path: string): Promise<void> {
  const uploads = uploadService(platform)
  const id = randomBytes(16).toString('hex')
  const { size } = await stat(path)
  await uploads.announce(scope, { id, fileName: path.split('/').at(-1)!, bytes: size })
  await platform.media.arrivals.put(id, path)
  await uploads.received(id)
  await work(platform, 'reading', 'measuring')
}

if (process.env.FILL_DEMO === 'yes') {
  const offsetMs = Number(process.env.CLOCK_OFFSET_MS ?? 0)
  const today = new Date(Date.now() + offsetMs)
  const clock = new MovableClock(today)
  const platform = await openPlatform(readConfiguration(process.env), clock)
  if (await accountService(platform).isFirstVisit()) {
    console.log('Filling in the demo …')
    await fillDemo(platform, clock, today, resolve('demo'))
    await moveClock(platform.database, offsetMs)
  }
  await platform.database.close()
}
