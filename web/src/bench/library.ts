import type { SavedDrill } from '../api/client'
import { pathWords, patternWords } from '../draw/words'

/** What stands on a shelf: all, the favourites, or one folder. */
export type Section = { kind: 'all' } | { kind: 'favourites' } | { kind: 'folder'; folder: string }

/** The folders there are, in order, with how many drills stand in each. */
export function foldersOf(drills: SavedDrill[]): { folder: string; count: number }[] {
  const counts = new Map<string, number>()
  for (const { shelf } of drills)
    if (shelf.folder) counts.set(shelf.folder, (counts.get(shelf.folder) ?? 0) + 1)
  return [...counts.entries()]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([folder, count]) => ({ folder, count }))
}

export function tagsOf(drills: SavedDrill[]): string[] {
  return [...new Set(drills.flatMap((d) => d.shelf.tags))].sort((a, b) => a.localeCompare(b))
}

/** The drills of a section that have all the tags and all the words, wherever they stand. */
export function found(
  drills: SavedDrill[],
  section: Section,
  tags: string[],
  search: string,
): SavedDrill[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  return drills.filter((d) => {
    if (section.kind === 'favourites' && !d.shelf.favourite) return false
    if (section.kind === 'folder' && d.shelf.folder !== section.folder) return false
    if (!tags.every((t) => d.shelf.tags.includes(t))) return false
    const { drill } = d.file
    const text = [
      drill.name,
      patternWords(drill),
      pathWords(drill),
      d.shelf.folder,
      ...d.shelf.tags,
      ...d.students,
    ]
      .join(' ')
      .toLowerCase()
    return words.every((w) => text.includes(w))
  })
}
