/** What a stand needs when there is no line, and how it is kept. */

/** The caches of this program: its files, and what the studio answered last. */
export const files = 'manudrill files'
export const answers = 'manudrill answers'

/** The most answers that are kept; the oldest go first. */
export const mostAnswers = 200

/** How long the studio is waited for before the page that is here is shown, in ms. */
export const patience = 4000

const id = '[0-9a-f-]{36}'
const kept = [
  '/api/session',
  '/api/house',
  `/api/students/${id}/(routines|hand)`,
  `/api/routines/${id}(/stands)?`,
  '/api/assignments',
  `/api/assignments/${id}`,
  '/api/comments/unread',
  '/api/takes',
].map((path) => new RegExp(`^${path}$`))

/** How a request is seen to. */
export type Way = 'page' | 'file' | 'answer' | 'network'

export function wayOf(request: { method: string; mode: string; url: string }, origin: string): Way {
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== origin) return 'network'
  if (request.mode === 'navigate') return url.pathname.startsWith('/api/') ? 'network' : 'page'
  if (url.pathname.startsWith('/assets/') || /^\/[^/]+\.(svg|png)$/.test(url.pathname))
    return 'file'
  return kept.some((path) => path.test(url.pathname)) ? 'answer' : 'network'
}

/**
 * Which of the program's files are fetched before anybody asks for them: all but the core,
 * which is for those who play and large.
 */
export const ahead = (file: string): boolean => /\.(js|css|woff2|svg|png)$/.test(file)

/** Which of the answers that are kept go when one more comes. */
export function tooOld<T>(oldestFirst: readonly T[]): T[] {
  return oldestFirst.slice(0, Math.max(0, oldestFirst.length - mostAnswers))
}

/** Forgets what the studio answered to whoever was here. */
export async function forgetAnswers(): Promise<void> {
  if (typeof caches !== 'undefined') await caches.delete(answers)
}
