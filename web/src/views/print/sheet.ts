import type { Chart, DrillFile, Neck } from '../../api/client'

/** What is laid out to be printed. */
export interface Sheet {
  title: string
  drills: {
    file: DrillFile
    seconds?: number
    /** As it lies for whoever plays it; otherwise it is written out for who prints it. */
    drawn?: { chart: Chart; neck: Neck }
  }[]
}

const key = 'manudrill sheet'

/** Lays drills out to be printed; they outlive a reload of the page. */
export function layOut(drills: Sheet['drills'], title = drills[0]?.file.drill.name ?? ''): void {
  sessionStorage.setItem(key, JSON.stringify({ title, drills } satisfies Sheet))
}

export function laidOut(): Sheet {
  const kept = sessionStorage.getItem(key)
  return kept ? (JSON.parse(kept) as Sheet) : { title: '', drills: [] }
}
