import { page, context, api, go, shot, done } from './shot0.mjs'
const { shows } = await api('/shows')
for (const show of shows) {
  const { episodes } = await api(`/shows/${show.id}/episodes`)
  for (const e of episodes) { const f = await api(`/episodes/${e.id}`), s = await api(`/episodes/${e.id}/sound`); console.log(e.title, e.standing, f.changedSinceRelease, s.tagsAreOld, s.findings.map(x => x.code).join(), f.text.chapters?.length) }
}
await go('/bellows-and-reeds/tuning-by-the-ferry-bell'); await shot('page-1')
await page.getByRole('button', { name: /Play/ }).first().click().catch(e => console.log(String(e).slice(0,200)))
await page.waitForTimeout(6000); await shot('page-2')
await done()
