// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { ElInputNumber } from 'element-plus'
import { expect, it } from 'vitest'

import FilePlayed from './FilePlayed.vue'

const asked = (heard?: number) =>
  mount(FilePlayed, { props: { name: 'some day.opus', rung: 120, heard } })
const handedIn = (w: ReturnType<typeof asked>) => w.emitted('handIn')?.at(-1)?.[0]

it('is at the tempo of the stand where nothing else is said', async () => {
  const w = asked(118)
  await w.get('form').trigger('submit')
  expect(handedIn(w)).toEqual({ bpm: 120, asHeard: false })
})

it('is at the tempo that is heard, and at the rung until one is', async () => {
  const w = asked(118)
  await w.get('input[value=heard]').setValue()
  await w.get('form').trigger('submit')
  expect(handedIn(w)).toEqual({ bpm: 118, asHeard: true })
  const unheard = asked()
  await unheard.get('input[value=heard]').setValue()
  await unheard.get('form').trigger('submit')
  expect(handedIn(unheard)).toEqual({ bpm: 120, asHeard: true })
})

it('is not handed in at another tempo that nobody has said', async () => {
  const w = asked()
  await w.get('input[value=other]').setValue()
  const other = w.getComponent(ElInputNumber)
  other.vm.$emit('update:modelValue', null)
  await w.vm.$nextTick()
  expect(w.get('[data-test=hand-in-file]').attributes('disabled')).toBeDefined()
  await w.get('form').trigger('submit')
  expect(handedIn(w)).toBeUndefined()
  other.vm.$emit('update:modelValue', 96)
  await w.get('form').trigger('submit')
  expect(handedIn(w)).toEqual({ bpm: 96, asHeard: false })
})
