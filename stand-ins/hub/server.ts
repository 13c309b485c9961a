import { createHmac, randomBytes } from 'node:crypto'
import { createServer, type IncomingMessage, type Server } from 'node:http'

const mostBytes = 64_000
const leaseSeconds = 10 * 24 * 3600
const patienceMs = 5_000

interface Subscription {
  callback: string
  secret: string | null
  until: number
}

/** A hub of W3C WebSub in small: takes subscriptions, verifies them, and hands on what was published. */
export function hubServer(now: () => number = Date.now): Server {
  const topics = new Map<string, Map<string, Subscription>>()

  async function take(form: URLSearchParams): Promise<number> {
    const mode = form.get('hub.mode')
    if (mode === 'publish') {
      const urls = [...form.getAll('hub.url'), ...form.getAll('hub.topic')]
      if (urls.length === 0) return 400
      for (const topic of urls) void distribute(topic).catch(() => undefined)
      return 204
    }
    const [topic, callback] = [form.get('hub.topic'), form.get('hub.callback')]
    if ((mode !== 'subscribe' && mode !== 'unsubscribe') || !topic || !callback || !URL.canParse(callback)) return 400
    void verify(mode, topic, callback, form.get('hub.secret')).catch(() => undefined)
    // Section 5.1.2: "the hub MUST respond with HTTP 202" where it verifies afterwards.
    return 202
  }

  /** Section 5.3: the hub asks whether that was meant, and takes only the challenge for an answer. */
  async function verify(mode: string, topic: string, callback: string, secret: string | null): Promise<void> {
    const challenge = randomBytes(16).toString('hex')
    const address = new URL(callback)
    address.searchParams.set('hub.mode', mode)
    address.searchParams.set('hub.topic', topic)
    address.searchParams.set('hub.challenge', challenge)
    address.searchParams.set('hub.lease_seconds', String(leaseSeconds))
    const answer = await fetch(address, { signal: AbortSignal.timeout(patienceMs) })
    if (!answer.ok || (await answer.text()) !== challenge) return
    const subscribed = topics.get(topic) ?? new Map<string, Subscription>()
    topics.set(topic, subscribed)
    if (mode === 'subscribe') subscribed.set(callback, { callback, secret, until: now() + leaseSeconds * 1000 })
    else subscribed.delete(callback)
  }

  /** Section 7: the whole content goes to each subscriber, signed where it gave a secret. */
  async function distribute(topic: string): Promise<void> {
    const subscribed = [...(topics.get(topic)?.values() ?? [])].filter(({ until }) => until > now())
    if (subscribed.length === 0) return
    const content = await fetch(topic, {
      headers: { 'user-agent': 'StandInHub/1.0' },
      signal: AbortSignal.timeout(patienceMs),
    })
    const body = Buffer.from(await content.arrayBuffer())
    await Promise.allSettled(
      subscribed.map(({ callback, secret }) =>
        fetch(callback, {
          method: 'POST',
          body,
          headers: {
            'content-type': content.headers.get('content-type') ?? 'application/octet-stream',
            link: `<${topic}>; rel="self"`,
            ...(secret && { 'x-hub-signature': `sha256=${createHmac('sha256', secret).update(body).digest('hex')}` }),
          },
          signal: AbortSignal.timeout(patienceMs),
        }),
      ),
    )
  }

  return createServer((request, response) => {
    if (request.method !== 'POST') return void response.writeHead(405, { allow: 'POST' }).end()
    formOf(request)
      .then(take)
      .catch(() => 400)
      .then(status => response.writeHead(status).end())
      .catch(() => response.destroy())
  })
}

async function formOf(request: IncomingMessage): Promise<URLSearchParams> {
  let text = ''
  for await (const part of request.setEncoding('utf8')) {
    text += part as string
    if (text.length > mostBytes) throw new Error('Too much.')
  }
  return new URLSearchParams(text)
}
