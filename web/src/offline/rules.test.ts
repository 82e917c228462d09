import { expect, it } from 'vitest'

import { ahead, mostAnswers, tooOld, wayOf } from './rules'

const origin = 'http://127.0.0.1:8765'
const id = '7e9e9d3e-35ce-50a8-972c-9a6e574f3946'
const get = (path: string, mode = 'cors') =>
  wayOf({ method: 'GET', mode, url: origin + path }, origin)

it('keeps what a stand needs, and nothing else of what the studio says', () => {
  for (const path of [
    '/api/session',
    `/api/students/${id}/routines`,
    `/api/routines/${id}/stands`,
    `/api/assignments/${id}`,
    '/api/takes?limit=25',
  ])
    expect(get(path), path).toBe('answer')
  for (const path of [
    `/api/takes/${id}`,
    `/api/takes/${id}/sound`,
    '/api/people',
    `/api/people/${id}/archive.zip`,
    '/api/students',
    '/metrics',
    '/api/session/x',
  ])
    expect(get(path), path).toBe('network')
})

it('lets past what is handed in, and what is others’', () => {
  expect(
    wayOf({ method: 'PUT', mode: 'cors', url: `${origin}/api/assignments/${id}` }, origin),
  ).toBe('network')
  expect(
    wayOf({ method: 'GET', mode: 'cors', url: 'https://elsewhere.example/assets/x.js' }, origin),
  ).toBe('network')
})

it('shows one page at all addresses, but never instead of a file that is saved', () => {
  expect(get(`/routines/${id}`, 'navigate')).toBe('page')
  expect(get(`/api/people/${id}/archive.zip`, 'navigate')).toBe('network')
  expect(get('/assets/main-abc.js')).toBe('file')
  expect(get('/mark.svg')).toBe('file')
})

it('fetches all but the core ahead', () => {
  expect(
    ['assets/a.js', 'assets/a.css', 'assets/a.woff2', 'assets/ear.wasm', 'index.html'].filter(
      ahead,
    ),
  ).toHaveLength(3)
})

it('keeps so many answers and no more', () => {
  const all = Array.from({ length: mostAnswers + 3 }, (_, i) => i)
  expect(tooOld(all)).toEqual([0, 1, 2])
  expect(tooOld(all.slice(3))).toEqual([])
})
