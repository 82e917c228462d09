import { expect, test } from 'vitest'

import type { Drill, DrillPart } from '../api/client'
import { alone, faultsOf, partsOf, withAlone, withParts } from './parts'

const rhythm = { notesPerBeat: 4, beatsPerBar: 4, passes: 1, close: 0, free: false }
const part = (title: string) => ({ title, mirror: false, reverse: false }) as unknown as DrillPart
const drill = withParts({ name: 'all', rhythm } as Drill, [part('a'), part('b'), part('c')])

test('a drill comes apart into its parts and is put together again', () => {
  expect(partsOf(drill).map((p) => p.title)).toEqual(['a', 'b', 'c'])
  expect(withParts(drill, partsOf(drill))).toEqual(drill)
  expect('then' in withParts(drill, [part('a')])).toBe(false)
})

test('one part is changed alone; the others and the name stay', () => {
  const second = alone(drill, 1)
  expect(second.then).toBeUndefined()
  const changed = withAlone(drill, 1, {
    ...second,
    mirror: true,
    rhythm: { ...rhythm, beatsPerBar: 3 },
  })
  expect(partsOf(changed).map((p) => p.mirror)).toEqual([false, true, false])
  expect(changed.rhythm.beatsPerBar).toBe(3)
  expect(changed.name).toBe('all')
  expect(drill.rhythm.beatsPerBar).toBe(4)
})

test('what is wrong with a part is told at its own settings', () => {
  const faults = [
    { field: 'path.position', text: 'first' },
    { field: 'then.1.path.position', text: 'third' },
    { field: 'rhythm.passes', text: 'all' },
  ]
  expect(faultsOf(faults, 0)).toEqual({ 'path.position': 'first', 'rhythm.passes': 'all' })
  expect(faultsOf(faults, 1)).toEqual({})
  expect(faultsOf(faults, 2)).toEqual({ 'path.position': 'third' })
})
