// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'

import ChoiceLine from './ChoiceLine.vue'

const options = ['tab', 'staff', 'both'].map((value) => ({ value, label: value }))
const line = (value: string) =>
  mount(ChoiceLine, { props: { modelValue: value, name: 'Shown as', options } })

// WAI-ARIA Authoring Practices, Radio Group Pattern: one stop of the tab key, arrows go round.
it('is one stop of the tab key: what is chosen, or the first', () => {
  const stops = (value: string) =>
    line(value)
      .findAll('button')
      .map((b) => b.attributes('tabindex'))
  expect(stops('staff')).toEqual(['-1', '0', '-1'])
  expect(stops('none of them')).toEqual(['0', '-1', '-1'])
})

it('is chosen by arrows, which go round', async () => {
  const w = line('both')
  const press = (at: number, key: string) => w.findAll('button')[at]!.trigger('keydown', { key })
  await press(2, 'ArrowRight')
  await press(0, 'ArrowLeft')
  await press(1, 'Home')
  expect(w.emitted('update:modelValue')).toEqual([['tab'], ['both']])
})
