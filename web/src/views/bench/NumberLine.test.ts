// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import NumberLine from './NumberLine.vue'

const line = (value: number, more = {}) =>
  mount(NumberLine, { props: { modelValue: value, name: 'Position', min: 1, max: 22, ...more } })
const set = (w: ReturnType<typeof line>) => w.emitted('update:modelValue')?.at(-1)?.[0]

describe('a number', () => {
  it('is typed, with a comma or a long minus too, and kept within its range', async () => {
    for (const [typed, is] of [
      ['9', 9],
      ['99', 22],
      ['−3', 1],
      ['4,5', 4.5],
    ] as const) {
      const w = line(7)
      await w.get('input').setValue(typed)
      expect(set(w), typed).toBe(is)
    }
  })

  it('stays as it was where no number is typed, and shows so', async () => {
    for (const typed of ['', 'seven', '1e999']) {
      const w = line(7)
      await w.get('input').setValue(typed)
      expect(set(w), typed).toBeUndefined()
      expect(w.get('input').element.value).toBe('7')
    }
  })

  it('steps by keys, by its own step, and no further than it goes', async () => {
    const w = line(10, { step: 5, max: 20 })
    await w.get('input').trigger('keydown', { key: 'ArrowUp' })
    expect(set(w)).toBe(15)
    await w.get('input').trigger('keydown', { key: 'PageUp' })
    expect(set(w)).toBe(20)
    await w.get('input').trigger('keydown', { key: 'a' })
    expect(w.emitted('update:modelValue')).toHaveLength(2)
  })

  it('says what is wrong about it', () => {
    expect(line(7, { fault: 'too high' }).get('[role=alert]').text()).toBe('too high')
    expect(line(7).find('[role=alert]').exists()).toBe(false)
  })
})
