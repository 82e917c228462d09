import { Accidental, StaveNote, Voice } from 'vexflow'
import { describe, expect, it } from 'vitest'

import type { Analysis, Chart, ChartNote, Drill, Neck, SavedDrill } from '../api/client'
import { found, foldersOf, tagsOf } from '../bench/library'
import { arcsOf, fretWindow, gripsOf, handBox, markRadius, NeckScale, placesOf } from './neck'
import { signatureOf, barsOf, barsPerRow, roomOf, rowsOf, staffKey, stepsAboveStaff } from './staff'
import { partsStarting, tabRows } from './tab'
import { contrastRows, passRows, timingLimit } from './noterows'
import { extraWords, noteWords } from './notewords'
import { clampTo, strips } from './timeline'
import { count, lasting, noteName, noteNumber, pathWords, patternWords, signed } from './words'

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
  topFret: 22,
  capo: 0,
  leftHanded: false,
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
  it('finds the fret under the mouse', () => {
    const scale = new NeckScale(neck, 0, 22, 40, 1000)
    for (const fret of [0, 1, 7, 12, 22]) expect(scale.fretAt(scale.finger(fret))).toBe(fret)
    expect(scale.fretAt(5000)).toBe(22)
  })
  it('puts the hand around the first grip', () => {
    expect(handBox(chart.notes)).toEqual({ low: 7, high: 9, thin: 5, thick: 6 })
    expect(handBox([{ ...note(0, 1, 1, 'pick'), fret: 0 }])).toBeUndefined()
  })
  it('draws a drill that moves one place of the hand at a time, and one that does not at once', () => {
    expect(gripsOf(chart.notes)).toHaveLength(1)
    const moved = (by: number, cell: number) =>
      chart.notes.slice(0, 6).map((n) => ({ ...n, fret: n.fret + by, cell }))
    const up = [...moved(0, 0), ...moved(1, 1), ...moved(2, 2), ...moved(1, 3), ...moved(0, 4)]
    const grips = gripsOf(up)
    expect(grips.map((g) => g.position)).toEqual([7, 8, 9])
    expect(grips.map((g) => g.notes.size)).toEqual([12, 12, 6])
    for (const g of grips) {
      const held = up.filter((_, i) => g.notes.has(i))
      expect(placesOf(held), 'each place has one finger').toHaveLength(3)
      expect(arcsOf(up, g.notes).every((a) => a.from >= g.position)).toBe(true)
    }
    const near = [...moved(0, 0), ...moved(3, 1)]
    expect(gripsOf(near), 'nothing of it lies on anything else').toHaveLength(1)
    expect(gripsOf([...near, ...moved(6, 2)])).toHaveLength(3)
    const one = moved(0, 0)
    const refingered = [...one, { ...one[0]!, finger: 2 }]
    expect(gripsOf(refingered).flatMap((g) => [...g.notes])).toHaveLength(7)
    expect(gripsOf([])).toHaveLength(1)
    const open = { ...one[0]!, fret: 0, finger: 0, cell: -1 }
    expect(gripsOf([open, ...up])[0]?.position, 'open strings leave the hand where it goes').toBe(7)
  })

  it('makes marks no wider than what parts them', () => {
    const scale = new NeckScale(neck, 0, 22, 60, 300)
    const places = placesOf(chart.notes)
    const r = markRadius(scale, places, 31)
    const frets = [...new Set(places.map((p) => p.fret))].sort((a, b) => a - b)
    for (const [i, f] of frets.entries())
      if (i > 0) expect(scale.finger(f) - scale.finger(frets[i - 1]!)).toBeGreaterThanOrEqual(2 * r)
    expect(markRadius(new NeckScale(neck, 0, 12, 60, 2000), places, 31)).toBe(10)
    expect(markRadius(new NeckScale(neck, 0, 12, 60, 2000), places, 16)).toBeLessThan(8)
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
    end: 2 + index / 2 + (index === 3 ? 0.3 : 0.5),
    deviationMs: index === 5 ? 20 : 3,
    uneven: index === 5,
    stands: index === 7,
    relativeLevelDb: index === 7 ? -9 : 0,
  }))
  return {
    tempo: { bpm: 60, notesPerSecond: 2, askedBpm: 60 },
    timing: {
      spreadMs: 0,
      spreadPercent: 0,
      cvPercent: 0,
      audibleMs: 12,
      plusMinusMs: 0,
    },
    level: { meanDb: -20, spreadDb: 0, audibleDb: 1 },
    counts: { expected: 24, played: 24, missed: 0, wrong: 0, extra: 1 },
    notes,
    extras: [{ t: 9.25, midi: 40, levelDb: -30 }],
    passes: [],
    transitions: [],
    foreign: false,
    pulse: {},
    slurs: {},
    connection: { gaps: 0, gapsOf: 0, ringing: 0, ringingOf: 0, bent: 0, bentOf: 0 },
    groups: [],
    course: { askedPasses: 2, passes: 2, events: [], tuningCents: 0 },
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
  it('tells how far a note sounds towards the next, but not the last one', () => {
    expect(marks[3]?.sounding).toBeCloseTo(0.6)
    expect(marks[4]?.sounding).toBeCloseTo(1)
    expect(marks[23]?.sounding).toBeUndefined()
  })
  it('marks notes with comments', () => {
    const pinned = strips(chart, analysis(), 1500, new Set([14])).flatMap((s) => s.marks)
    expect(pinned.filter((m) => m.pinned).map((m) => m.heard.index)).toEqual([14])
  })
  it('puts an extra note between its neighbours', () => {
    const [extra] = all[1]?.extras ?? []
    const [before, after] = [all[1]?.marks[2], all[1]?.marks[3]]
    expect(extra?.x).toBeGreaterThan(before?.x ?? Infinity)
    expect(extra?.x).toBeLessThan(after?.x ?? 0)
  })
  it('puts what happened before the note that was due, or after the last', () => {
    const take = analysis()
    take.course.events = [
      { kind: 'hesitation', before: 3, pass: 0, t: 3.7, seconds: 0.34 },
      { kind: 'replay', before: 18, to: 15, pass: 1, t: 9, notes: 3 },
      { kind: 'transposed', before: 0, pass: 0, t: 2, semitones: 1 },
      { kind: 'otherTempo', before: 0, pass: 0, t: 2, share: 0.9 },
      { kind: 'left', before: 24, pass: 1, t: 13, notes: 0 },
    ]
    const [first, second] = strips(chart, take, 1500)
    const [wait] = first?.events ?? []
    expect(first?.events).toHaveLength(1)
    expect(wait?.words).toBe('waited 0.3 s')
    expect(wait?.x).toBeGreaterThan(first?.marks[2]?.x ?? Infinity)
    expect(wait?.x).toBeLessThan(first?.marks[3]?.x ?? 0)
    const [back, left] = second?.events ?? []
    expect(back?.words).toBe('back to 4')
    expect(back?.toX).toBeLessThan(back?.x ?? 0)
    expect(left?.x).toBe(second?.width)
  })
  it('keeps far values on the axis', () => {
    expect(clampTo(500, 24, 34)).toBe(34)
    expect(clampTo(-12, 24, 34)).toBe(-17)
  })
})

describe('a note in words', () => {
  const note = { ...chart.notes[0]!, string: 3, fret: 7, finger: 3, attack: 'hammer' as const }
  const heard = { index: 0, pass: 0, status: 'played' as const, expectedT: 2, t: 2 }

  it('says when, how loud, and what is wrong with it', () => {
    const words = noteWords(note, { ...heard, deviationMs: 12.4, relativeLevelDb: -3, gapMs: 41 })
    expect(words).toBe(
      'string 3 fret 7, finger 3, hammer-on: 12 ms late, −3.0 dB against the mean, 41 ms of silence after it',
    )
  })
  it('says what an extra note most likely is', () => {
    const extra = { t: 1, midi: 40, levelDb: -20 }
    expect(extraWords({ ...extra, kind: 'touched' })).toBe('Extra note E2: an open string touched')
    expect(extraWords({ ...extra, kind: 'other' })).toBe('Extra note E2')
  })
  it('says that it was missed', () => {
    expect(noteWords(note, { ...heard, status: 'missed' })).toBe(
      'string 3 fret 7, finger 3, hammer-on: missed',
    )
  })
})

describe('rows of notes', () => {
  it('has one row for each pass, late below the line', () => {
    const rows = passRows(chart, analysis())
    expect(rows.map((r) => r.name)).toEqual(['Pass 1', 'Pass 2'])
    expect(rows[0]?.cells.filter((c) => c.beyond).map((c) => c.index)).toEqual([5])
  })
  it('sets two takes under one another on one scale', () => {
    const habit = { count: 2, deviationMs: 0, relativeLevelDb: 0, uneven: false, stands: false }
    const places = chart.notes.map(() => ({ before: { ...habit }, after: { ...habit } }))
    Object.assign(places[2]!.before, { deviationMs: 12, uneven: true })
    Object.assign(places[2]!.after, { relativeLevelDb: 3, stands: true })
    Object.assign(places[3]!.after, { count: 0 })
    const rows = contrastRows(chart, analysis(), { differences: [], transitions: [], places })
    const [early, late, , loud] = rows.map((r) => r.cells)
    expect(early?.[2]).toMatchObject({ beyond: true, down: 12 / timingLimit(analysis()) })
    expect(early?.[2]?.words).toContain('12 ms late, mean of 2 passes')
    expect(late?.[3]?.down).toBeUndefined()
    expect(late?.[3]?.words).toContain('not played right')
    expect(loud?.[2]?.down).toBeLessThan(0)
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
  it('tells what a drill is, and where it lies', () => {
    const d = drillOf({
      kind: 'slurCombinations',
      combinations: [
        [1, 2],
        [3, 4],
      ],
      slur: 'pull',
    })
    expect(patternWords(d)).toBe('Slurs 12, 34, pull-offs')
    expect(pathWords(d)).toBe('Position 5, strings 3 to 1 and back, moving up 2 times')
    d.path.within = 'down'
    expect(pathWords(d)).toContain('and back, each string down, moving')
    const run = drillOf({
      kind: 'scaleRun',
      perString: [3],
      order: 'both',
      sequence: { length: 0, advance: 0 },
      topTapped: false,
    })
    run.key = { root: 9, scale: 'minorPentatonic' }
    expect(patternWords(run)).toBe('Run in A minor pentatonic, 3 a string, up and down')
  })
  it('reads note names, and none from what is none', () => {
    expect(['E2', 'F♯4', 'Bb3', 'C-1', 'H2'].map(noteNumber)).toEqual([40, 66, 58, 0, undefined])
  })
  it('tells how long', () => {
    expect([lasting(45), lasting(90), lasting(360), lasting(0)]).toEqual([
      '45 s',
      '1 min 30 s',
      '6 min',
      '0 s',
    ])
  })
})

/** A drill of a pattern on three strings and back, moving up twice. */
function drillOf(pattern: Drill['pattern']): Drill {
  return {
    name: 'test',
    pattern,
    path: {
      position: 5,
      strings: [3, 2, 1],
      spread: 'neighbours',
      back: 'return',
      stay: { count: 1, unit: 'times' },
      shift: { by: 1, each: 'round', count: 2, home: false, slide: false },
      together: false,
    },
    attacks: { rule: 'slurred' },
    rhythm: { notesPerBeat: 2, beatsPerBar: 4, passes: 1, close: 0, free: false },
    strokes: { rule: 'alternate', fromUp: false },
    fingering: { stretch: 'middle', tapFinger: 2, keepDown: false },
    mirror: false,
    reverse: false,
  }
}

describe('staff', () => {
  /** The signs that the library draws at the notes of a bar, after a signature. */
  function signs(written: string[], fifths?: number): (string | undefined)[] {
    const notes = written.map((w) => new StaveNote({ keys: [staffKey(w)], duration: '8' }))
    const voice = new Voice().setMode(Voice.Mode.SOFT).addTickables(notes)
    Accidental.applyAccidentals([voice], signatureOf(fifths))
    return notes.map(
      (n) => n.getModifiersByType('Accidental').map((a) => (a as Accidental).type)[0],
    )
  }
  it('writes an octave above what sounds', () => {
    expect(staffKey('F#4')).toBe('f#/5')
    expect(staffKey('Bb2')).toBe('bb/3')
  })
  it('draws an accidental once a bar, and a natural where it is taken back', () => {
    expect(signs(['F#4', 'F#4', 'F4', 'F#5', 'F4'])).toEqual(['#', undefined, 'n', '#', undefined])
  })
  it('makes the last bar as long as its notes', () => {
    expect(barsOf(chart).map((b) => b.length)).toEqual([8, 4])
  })
  it('draws no sign that the signature has, and a natural against it', () => {
    // A major has F, C and G sharp; F major B flat (common practice).
    expect(signs(['F#4', 'C#4', 'G#4', 'D4', 'G4'], 3)).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
      'n',
    ])
    expect(signs(['Bb3', 'B3', 'Bb3'], -1)).toEqual([undefined, 'n', 'b'])
    expect([signatureOf(3), signatureOf(-1), signatureOf(6), signatureOf()]).toEqual([
      'A',
      'F',
      'F#',
      'C',
    ])
  })
  it('counts steps from the lowest line', () => {
    // Written E4 lies on the lowest line, F5 on the highest (common practice).
    expect(stepsAboveStaff('E3')).toBe(0)
    expect(stepsAboveStaff('F#4')).toBe(8)
    expect(stepsAboveStaff('A2')).toBe(-4)
  })
  it('makes room for ledger lines', () => {
    const high = { ...chart, notes: [{ ...note(0, 1, 1, 'pick'), written: 'C6' }] }
    expect(roomOf(high).above).toBe(91) // eleven steps above the top line
    expect(roomOf(high).below).toBe(30)
  })
  it('lays about as many bars into each row', () => {
    expect(barsPerRow(chart, 2000, 20)).toBe(2)
    expect(barsPerRow(chart, 200, 20)).toBe(1)
  })
})

describe('library', () => {
  const saved = (name: string, folder: string, tags: string[], favourite = false): SavedDrill => ({
    id: name,
    name,
    version: 1,
    revision: 1,
    shelfRevision: 1,
    file: {
      drill: { ...drillOf({ kind: 'trill', fingers: [1, 3] }), name },
      ladder: {
        startBpm: 60,
        stepBpm: 4,
        targetBpm: 100,
        gate: {
          rightPercent: 95,
          spreadPercent: 7,
          levelSpreadDb: 4,
          passesInARow: 2,
          gapsPercent: 0,
          ringingPercent: 0,
          bentPercent: 0,
        },
      },
    },
    changedAt: '2026-01-01T00:00:00Z',
    students: [],
    takes: 0,
    shelf: { folder, tags, favourite },
  })
  const all = [
    saved('Low trill', 'Trills', ['warm-up'], true),
    saved('High trill', 'Trills', []),
    saved('Other', '', ['warm-up']),
  ]
  const names = (ds: SavedDrill[]) => ds.map((d) => d.id)
  it('finds by shelf, tags and words together', () => {
    expect(names(found(all, { kind: 'all' }, [], ''))).toHaveLength(3)
    expect(names(found(all, { kind: 'favourites' }, [], ''))).toEqual(['Low trill'])
    expect(names(found(all, { kind: 'folder', folder: 'Trills' }, ['warm-up'], ''))).toEqual([
      'Low trill',
    ])
    expect(names(found(all, { kind: 'all' }, [], 'TRILL high'))).toEqual(['High trill'])
    expect(names(found(all, { kind: 'all' }, [], 'piano'))).toEqual([])
  })
  it('knows its folders and tags', () => {
    expect(foldersOf(all)).toEqual([{ folder: 'Trills', count: 2 }])
    expect(tagsOf(all)).toEqual(['warm-up'])
  })
})

describe('the names of notes', () => {
  it('are those of a place', () => {
    expect([60, 70, 71].map((m) => noteName(m))).toEqual(['C4', 'A♯4', 'B4'])
    expect([60, 70, 71].map((m) => noteName(m, 'german'))).toEqual(['C4', 'B4', 'H4'])
    expect([60, 70, 71].map((m) => noteName(m, 'solfege'))).toEqual(['Do4', 'La♯4', 'Si4'])
  })
})

it('breaks a chart into rows of whole bars, each a chart of its own', () => {
  const notes = Array.from({ length: 20 }, (_, i) => ({ beat: i / 2, written: 'E3' }))
  const chart = { notesPerBeat: 2, beatsPerBar: 4, notes } as unknown as Chart
  const rows = rowsOf(chart, 1)
  expect(rows.map((r) => [r.from, r.chart.notes.length])).toEqual([
    [0, 8],
    [8, 8],
    [16, 4],
  ])
  expect(barsOf(rows[2]!.chart)[0]).toHaveLength(4)
})

it('tells each part where it begins, and again where a row goes on with it', () => {
  const of = (part: number, at: number) => ({ ...note(at, 3, 1, 'pick'), part })
  const notes = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5].map((beat, i) => of(i < 6 ? 0 : 1, beat))
  const parted = { ...chart, notes, parts: ['Picked', 'Slurred'] }
  const rows = tabRows(parted, 26 * 2 + 4 * 44) // two beats a row
  expect(rows.map((r) => partsStarting(parted, r).map((p) => p.title))).toEqual([
    ['Picked'],
    ['Picked', 'Slurred'],
  ])
  expect(partsStarting(chart, rows[0]!)).toEqual([])
})
