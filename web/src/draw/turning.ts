/**
 * Which rows of music are shown where there is room for so many: the one that is played,
 * and those after it. A row stays where it is until it has been played, and half of the
 * next: then it has been seen how it went, and the one that comes takes its place, so that
 * nothing moves under the eye. Music that has room stays as it is.
 *
 * Rows are counted through all passes; now is the one that is played, of which the share
 * is over. The last of all passes is followed by nothing.
 */
export function rowsShown(
  rows: number,
  places: number,
  now: number,
  share: number,
  passes: number,
): (number | undefined)[] {
  if (rows <= places) {
    const pass = Math.floor(now / rows)
    return Array.from({ length: rows }, (_, row) => pass * rows + row)
  }
  const from = places > 1 && now > 0 && share < 0.5 ? now - 1 : now
  return Array.from({ length: places }, (_, place) => {
    const at = from + ((((place - from) % places) + places) % places)
    return at < rows * passes ? at : undefined
  })
}
