process.on('unhandledRejection', e => { console.log(String(e).slice(0, 800)); process.exit(1) }); process.on('uncaughtException', e => { console.log(String(e).slice(0, 800)); process.exit(1) })
import { chromium } from 'playwright-core'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] })
export const context = await browser.newContext({ viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) }, locale: 'en-GB' })
export const page = await context.newPage()
page.on('console', m => { if (m.type() === 'error') console.log('console:', m.text()) })
page.on('pageerror', e => console.log('pageerror:', e.message))
const base = 'http://127.0.0.1:4310'
await page.goto(base + '/studio/')
await page.fill('#email', 'demo@lakeletter.example'); await page.fill('#password', 'lake-letter-demo')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.waitForURL(u => /studio\/[a-z]/.test(u.pathname) && !u.pathname.includes('sign-in'))
export const api = async (path, init) => page.evaluate(async ([p, i]) => { const r = await fetch('/api/v1' + p, i); return r.status === 204 ? null : r.json() }, [path, init && { ...init, headers: { 'content-type': 'application/json' }, body: JSON.stringify(init.body) }])
export const go = path => page.goto(base + path)
export const dark = () => page.evaluate(() => document.documentElement.setAttribute('data-theme', 'dark'))
export const shot = async name => { await page.waitForTimeout(400); await page.screenshot({ path: `/tmp/shots/${name}.png` }) }
export const done = () => browser.close()
