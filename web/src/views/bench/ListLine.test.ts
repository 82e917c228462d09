// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'

import ListLine from './ListLine.vue'

/** Reads numbers up to the first thing that is none. */
const unread = (text: string) => text.replace(/^[\d\s]*/, '')
const line = () => mount(ListLine, { props: { name: 'Rungs', hint: '', text: '60 64', unread } })

it('keeps what could not be read in sight, and says from where', async () => {
  const w = line()
  const input = w.get('input')
  await input.trigger('focus')
  await input.setValue('60 64 and so on')
  expect(w.emitted('typed')?.at(-1)).toEqual(['60 64 and so on'])
  expect(w.get('[role=status]').text()).toContain('and so on')
  await input.trigger('blur')
  expect(input.element.value).toBe('60 64 and so on')
})

it('shows what was read once the field is left, and what comes from elsewhere meanwhile not before', async () => {
  const w = line()
  const input = w.get('input')
  await input.trigger('focus')
  await input.setValue('60  70')
  await w.setProps({ text: '60 70' })
  expect(input.element.value).toBe('60  70')
  await input.trigger('blur')
  expect(input.element.value).toBe('60 70')
  await w.setProps({ text: '80' })
  expect(input.element.value).toBe('80')
})
