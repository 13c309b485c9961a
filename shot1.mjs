import { page, go, shot, done, api, dark } from './shot0.mjs'
const { shows } = await api('/shows')
const s = shows.find(x => x.slug === 'bellows-and-reeds')
const list = await api(`/shows/${s.id}/episodes/near`)
const ep = t => [...list.released.episodes, ...list.scheduled.episodes, ...list.draft.episodes].find(e => e.title.startsWith(t)).id
await go(`/studio/bellows-and-reeds/episodes/${ep('What the bellows')}?part=chapters`)
await page.getByRole('list', { name: 'Chapters' }).waitFor()
await page.waitForTimeout(800)
await dark(); 
await shot('ch-own-dark')
await go('/bellows-and-reeds/what-the-bellows-remember'); await page.waitForTimeout(500)
await page.locator('[data-at]').nth(2).click(); await page.waitForTimeout(700)
await shot('page')
await go(`/studio/bellows-and-reeds/episodes/${ep('Tuning by')}?part=people`)
await page.waitForTimeout(800)
await shot('people')
await done()
