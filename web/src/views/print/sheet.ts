import type { DrillFile } from '../../api/client'

const key = 'manudrill sheet'

/** Lays drills out to be printed; they outlive a reload of the page. */
export function layOut(files: DrillFile[]): void {
  sessionStorage.setItem(key, JSON.stringify(files))
}

export function laidOut(): DrillFile[] {
  return JSON.parse(sessionStorage.getItem(key) ?? '[]') as DrillFile[]
}
