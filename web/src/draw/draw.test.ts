import { describe, expect, it } from 'vitest'

import type { Analysis, Chart, ChartNote, Neck } from '../api/client'
import { arcsOf, fretWindow, NeckScale, placesOf } from './neck'
import { tabRows } from './tab'
import { clampTo, strips } from './timeline'
import { count, noteName, patternWords, signed } from './words'

function note(
  beat: number,
  string: number,
  finger: number,
  attack: ChartNote['attack'],
): ChartNote {
  return { beat, string, fret: finger + 6, midi: 60, attack, finger, hand: 'fret' }
}

/** Twelve notes, two a beat: three fingers up and down on two strings. */
const chart: Chart = {
  name: 'test',
  bpm: 60,
  notesPerBeat: 2,
  tuning: [64, 59, 55, 50, 45, 40],
  passes: 2,
  notes: [6, 5].flatMap((string, s) =>
    [1, 2, 3, 2, 1, 2].map((finger, i) =>
      note(s * 3 + i / 2, string, finger, i === 0 ? 'pick' : i < 3 || i === 5 ? 'hammer' : 'pull'),
    ),
  ),
}

const neck: Neck = {
  frets: 22,
  scaleMm: 648,
  reachMm: 0,
  fretMm: Array.from({ length: 23 }, (_, n) => 648 * (1 - 2 ** (-n / 12))),
}

describe('neck', () => {
  it('shows each place and each slur once', () => {
    expect(placesOf(chart.notes)).toHaveLength(6)
    const onSix = arcsOf(chart.notes).filter((a) => a.string === 6)
    expect(onSix.map((a) => `${a.from}>${a.to}`)).toEqual(['7>8', '8>9', '9>8', '8>7'])
  })
  it('puts the twelfth fret half way along the string', () => {
    const scale = new NeckScale(neck, 0, 22, 0, 1000)
    const perMm = 1000 / (neck.fretMm[22] ?? 1)
    expect(scale.wire(12)).toBeCloseTo(324 * perMm)
    expect(scale.wire(0)).toBeCloseTo(0)
    expect(scale.wire(22)).toBeCloseTo(1000)
  })
  it('puts a finger between its wire and the one before', () => {
    const scale = new NeckScale(neck, 5, 12, 40, 600)
    expect(scale.finger(7)).toBeGreaterThan(scale.wire(6))
    expect(scale.finger(7)).toBeLessThan(scale.wire(7))
  })
  it('keeps all notes in a narrow window', () => {
    const [from, to] = fretWindow(neck, chart.notes, false)
    expect(from).toBeLessThan(7)
    expect(to).toBeGreaterThanOrEqual(9)
    expect(fretWindow(neck, chart.notes, true)).toEqual([0, 22])
  })
})

describe('tablature', () => {
  it('holds every note once, in rows that fit', () => {
    for (const width of [280, 390, 700, 1500]) {
      const rows = tabRows(chart, width)
      expect(rows.flatMap((r) => r.notes.map((n) => n.index))).toEqual([...chart.notes.keys()])
      for (const row of rows) expect(row.width).toBeLessThanOrEqual(Math.max(width, 110))
    }
  })
  it('draws a slur from the note before on the same string', () => {
    const notes = tabRows(chart, 1500)[0]?.notes ?? []
    expect(notes[0]?.slurFrom).toBeUndefined()
    expect(notes[1]?.slurFrom).toBe(notes[0]?.x)
    expect(notes[6]?.slurFrom).toBeUndefined()
  })
})

function analysis(): Analysis {
  const notes = Array.from({ length: 24 }, (_, index) => ({
    index,
    pass: Math.floor(index / 12),
    status: 'played' as const,
    expectedT: 2 + index / 2,
    t: 2 + index / 2,
    deviationMs: index === 5 ? 20 : 3,
    relativeLevelDb: index === 7 ? -9 : 0,
  }))
  return {
    tempo: { bpm: 60, notesPerSecond: 2, askedBpm: 60 },
    timing: { spreadMs: 0, spreadPercent: 0, cvPercent: 0, audibleMs: 12 },
    level: { meanDb: -20, spreadDb: 0, audibleDb: 1 },
    counts: { expected: 24, played: 24, missed: 0, wrong: 0, extra: 1 },
    notes,
    extras: [{ t: 9.25, midi: 40, levelDb: -30 }],
    passes: [],
    transitions: [],
    foreign: false,
  }
}

describe('time line', () => {
  const all = strips(chart, analysis(), 1500)
  const marks = all.flatMap((s) => s.marks)

  it('lays the passes under one another', () => {
    expect(all.map((s) => s.pass)).toEqual([0, 1])
    expect(marks).toHaveLength(24)
    expect(all[1]?.marks[0]?.x).toBe(all[0]?.marks[0]?.x)
  })
  it('marks only what can be heard', () => {
    expect(marks.filter((m) => m.uneven).map((m) => m.heard.index)).toEqual([5])
    expect(marks.filter((m) => m.stands).map((m) => m.heard.index)).toEqual([7])
  })
  it('puts an extra note between its neighbours', () => {
    const [extra] = all[1]?.extras ?? []
    const [before, after] = [all[1]?.marks[2], all[1]?.marks[3]]
    expect(extra?.x).toBeGreaterThan(before?.x ?? Infinity)
    expect(extra?.x).toBeLessThan(after?.x ?? 0)
  })
  it('keeps far values on the axis', () => {
    expect(clampTo(500, 24, 34)).toBe(34)
    expect(clampTo(-12, 24, 34)).toBe(-17)
  })
})

describe('words', () => {
  it('counts one and many', () => {
    expect(count(1, 'take')).toBe('1 take')
    expect(count(0, 'pass', 'passes')).toBe('0 passes')
  })
  it('names notes as MIDI numbers them', () => {
    expect([noteName(60), noteName(69), noteName(40)]).toEqual(['C4', 'A4', 'E2'])
  })
  it('writes signs, and none for what rounds to nothing', () => {
    expect([signed(3.2), signed(-3.2), signed(-0.2), signed(0.04, 1)]).toEqual([
      '+3',
      '−3',
      '0',
      '0.0',
    ])
  })
  it('tells a pattern', () => {
    const drill = {
      name: '',
      position: 5,
      strings: [1],
      thereAndBack: false,
      repeats: 1,
      notesPerBeat: 2,
      passes: 1,
      pattern: {
        kind: 'slurCombinations' as const,
        combinations: [
          [1, 2],
          [3, 4],
        ],
        slur: 'pull' as const,
      },
    }
    expect(patternWords(drill)).toBe('Slurs 12, 34, pull-offs')
  })
})
