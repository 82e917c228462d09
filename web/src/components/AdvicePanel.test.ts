// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'

import type { MeasuredTake } from '../api/client'
import AdvicePanel from './AdvicePanel.vue'

const mistakes = [...Array(8).keys()].map((i) => ({ t: i, index: i - 1, text: `note ${i} late` }))
const take = {
  summary: { id: 't', student: { name: 'Mira' } },
  advice: {
    tally: '8 late',
    findings: [
      { about: 'mistakes', text: '8 late notes.' },
      { about: 'cause', text: 'The ring finger.' },
      { about: 'level', text: 'Soft.' },
    ],
    mistakes,
    remedies: [],
  },
} as unknown as MeasuredTake

const panel = (brief = false) =>
  mount(AdvicePanel, {
    props: { take, brief },
    global: {
      plugins: [
        createRouter({ history: createMemoryHistory(), routes: [{ path: '/', component: {} }] }),
      ],
    },
  })

it('says one thing and what it comes from at a distance', () => {
  const w = panel(true)
  expect(w.findAll('.findings > li').map((l) => l.text())).toEqual([
    '8 late notes.',
    'The ring finger.',
  ])
  expect(w.find('.mistakes').exists()).toBe(false)
})

it('lists the first mistakes, and all of them once asked', async () => {
  const w = panel()
  expect(w.findAll('.mistakes li')).toHaveLength(6)
  await w.get('button.link').trigger('click')
  expect(w.findAll('.mistakes li')).toHaveLength(8)
  expect(w.find('button.link').exists()).toBe(false)
})

it('leads from a mistake to its note, from one before the first to the first', async () => {
  const w = panel()
  const all = w.findAll('.mistakes button')
  await all[0]!.trigger('click')
  await all[3]!.trigger('click')
  expect(w.emitted('choose')).toEqual([[0], [2]])
})
