import { renderToString } from '@vue/server-renderer'
import { expect, it } from 'vitest'
import { type Component, createSSRApp, h } from 'vue'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { useDeskPlaces } from './places'

/** A desk in a studio whose other page comes when `arrive` is called; `fail` is as if it could not be had. */
async function deskWithPage() {
  let places!: ReturnType<typeof useDeskPlaces>
  let arrive!: () => void
  let fail!: () => void
  const page = new Promise<Component>((done, failed) => {
    arrive = () => done({ render: () => h('p') })
    fail = () => failed(new Error('It could not be had.'))
  })
  const desk = {
    setup() {
      places = useDeskPlaces()
      return () => h('p')
    },
  }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/desk', component: desk },
      { path: '/page', component: () => page },
    ],
  })
  await router.push('/desk')
  await renderToString(createSSRApp({ render: () => h(RouterView) }).use(router))
  return { router, places, arrive, fail }
}
const rest = (): Promise<void> => new Promise(done => setTimeout(done))

it('a desk that is being left takes nobody back, whatever becomes open on it meanwhile', async () => {
  const { router, places, arrive } = await deskWithPage()
  const left = router.push('/page')
  await rest()
  places.part.value = 'sound'
  arrive()
  await left
  expect(router.currentRoute.value.fullPath).toBe('/page')
})

it('a desk whose next page could not be had opens its parts as before', async () => {
  const { router, places, fail } = await deskWithPage()
  const left = router.push('/page').catch(() => undefined)
  await rest()
  fail()
  await left
  places.part.value = 'sound'
  await rest()
  expect(router.currentRoute.value.fullPath).toBe('/desk?part=sound')
})
