// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import { Problem } from '../api/client'
import type { Unsent } from '../audio/unsent'
import UnsentList from './UnsentList.vue'

const box = vi.hoisted(() => ({ outbox: {} as Record<string, unknown>, fileOf: vi.fn() }))
vi.mock('../audio/outbox', () => box)

const take = (id: string, more: Partial<Unsent> = {}) =>
  ({
    id,
    assignmentId: 'a',
    startedAt: '2026-03-02T10:00:00Z',
    bpm: 96,
    frames: 96000,
    rate: 48000,
    whole: true,
    ...more,
  }) as Unsent

const handIn = vi.fn()
beforeEach(() => {
  handIn.mockClear()
  box.outbox = {
    all: ref<Unsent[]>([]),
    fault: ref<Problem>(),
    sending: ref<string>(),
    look: () => Promise.resolve(),
    handIn,
  }
})

const shows = (takes: Unsent[], props = {}) => {
  ;(box.outbox.all as { value: Unsent[] }).value = takes
  return mount(UnsentList, { props })
}

it('is not there where everything is handed in', () => {
  expect(shows([]).find('section').exists()).toBe(false)
})

it('offers to hand in what is not handed in by itself: broken off, or refused', async () => {
  const w = shows([
    take('whole'),
    take('broken', { whole: false }),
    take('refused', { refused: new Problem('No', 'The drill was withdrawn.') }),
  ])
  const lines = w.findAll('li')
  expect(lines.map((l) => l.find('[data-test=hand-in]').exists())).toEqual([false, true, true])
  expect(lines.map((l) => l.get('[data-test=unsent-state]').attributes('data-of'))).toEqual([
    'whole',
    'broken-off',
    'refused',
  ])
  expect(lines[2]!.text()).toContain('The drill was withdrawn.')
  await lines[1]!.get('[data-test=hand-in]').trigger('click')
  expect(handIn).toHaveBeenCalledWith('broken')
})

it('lets notes that were struck not be heard: they have no sound', () => {
  const w = shows([take('played'), take('struck', { struck: [] as Unsent['struck'] })])
  expect(w.findAll('li').map((l) => l.find('[data-test=hear-unsent]').exists())).toEqual([
    true,
    false,
  ])
})

it('shows those of one drill alone at its stand', () => {
  const both = [take('here'), take('elsewhere', { assignmentId: 'b' })]
  expect(shows(both, { assignmentId: 'a' }).findAll('li')).toHaveLength(1)
  expect(shows(both).findAll('li')).toHaveLength(2)
})
