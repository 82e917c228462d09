import { describe, expect, it } from 'vitest'

import type { DrillFile } from '../api/client'
import { differences } from './conflict'

const drill = {
  drill: { name: 'a', pattern: { kind: 'trill', fingers: [1, 2] }, mirror: false },
  ladder: { startBpm: 60 },
} as unknown as DrillFile

describe('two drills', () => {
  it('that say the same differ in nothing, however they are written', () => {
    const { drill: d, ladder } = drill
    expect(differences(drill, { ladder, drill: { ...d, key: undefined } })).toEqual([])
  })
  it('tell where they differ', () => {
    const other = {
      ladder: { startBpm: 72 },
      drill: { ...drill.drill, name: 'b', key: { root: 3, scale: 'major' } },
    } as unknown as DrillFile
    expect(differences(drill, other)).toEqual(['name', 'key', 'tempo ladder'])
  })
})
