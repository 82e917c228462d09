/**
 * Runs beside the pages and keeps what a stand needs, so that it works without a line: the
 * program's own files, and what the studio answered last. With a line the studio is always
 * asked first. Nothing is kept back: what is handed in goes past here.
 */
import { ahead, answers, files, patience, tooOld, wayOf } from './rules'

declare const self: typeof globalThis & {
  skipWaiting(): Promise<void>
  clients: { claim(): Promise<void> }
}
type Waits = Event & { waitUntil(done: Promise<unknown>): void }
type Fetch = Waits & { request: Request; respondWith(answer: Promise<Response>): void }

/** The page that all addresses show. */
const page = '/'

async function install() {
  const cache = await caches.open(files)
  const list = (await (await fetch('/files.json', { cache: 'no-cache' })).json()) as string[]
  await cache.add(page)
  const here = new Set((await cache.keys()).map((r) => new URL(r.url).pathname))
  // One by one: where one cannot be had now, it is fetched when it is asked for.
  for (const file of list.filter(ahead).map((f) => `/${f}`))
    if (!here.has(file)) await cache.add(file).catch(() => undefined)
  await self.skipWaiting()
}

/** Files of programs before this one go. */
async function activate() {
  const cache = await caches.open(files)
  const list = (await (await fetch('/files.json', { cache: 'no-cache' })).json()) as string[]
  const now = new Set([page, ...list.map((f) => `/${f}`)])
  for (const request of await cache.keys())
    if (!now.has(new URL(request.url).pathname)) await cache.delete(request)
  await self.clients.claim()
}

/** The latest page where it comes in time, or else the one that is here. */
async function pageOf(request: Request): Promise<Response> {
  const cache = await caches.open(files)
  const asked = fetch(request).then(async (answer) => {
    if (answer.ok) await cache.put(page, answer.clone())
    return answer
  })
  asked.catch(() => undefined) // told below
  const late = new Promise<undefined>((resolve) => setTimeout(resolve, patience))
  const answer = await Promise.race([asked.catch(() => undefined), late])
  return answer ?? (await cache.match(page)) ?? asked
}

/** Files never change under their name. */
async function fileOf(request: Request): Promise<Response> {
  const cache = await caches.open(files)
  const here = await cache.match(request)
  if (here) return here
  const answer = await fetch(request)
  if (answer.ok) await cache.put(request, answer.clone())
  return answer
}

/** What the studio says; what it said last where it cannot be asked. */
async function answerOf(request: Request): Promise<Response> {
  const cache = await caches.open(answers)
  try {
    const answer = await fetch(request)
    if (answer.status === 401)
      await caches.delete(answers) // whoever was here has left
    else if (answer.ok) {
      await cache.put(request, answer.clone())
      for (const old of tooOld(await cache.keys())) await cache.delete(old)
    }
    return answer
  } catch (thrown) {
    const last = await cache.match(request)
    if (last) return last
    throw thrown
  }
}

self.addEventListener('install', (event) => (event as Waits).waitUntil(install()))
self.addEventListener('activate', (event) => (event as Waits).waitUntil(activate()))
self.addEventListener('fetch', (event) => {
  const { request } = event as Fetch
  const way = wayOf(request, self.location.origin)
  if (way === 'network') return
  const ways = { page: pageOf, file: fileOf, answer: answerOf }
  ;(event as Fetch).respondWith(ways[way](request))
})
