/**
 * Which rows of music are shown where there is room for so many: the one that is played,
 * and those after it. A row stays where it is until it has been played; only then the one
 * that comes next takes its place, so that nothing moves under the eye. Music that has room
 * stays as it is.
 *
 * now counts the rows played before the present one, pass after pass; the last of all
 * passes is followed by nothing.
 */
export function rowsShown(
  rows: number,
  places: number,
  now: number,
  passes: number,
): (number | undefined)[] {
  if (rows <= places) return Array.from({ length: rows }, (_, row) => row)
  return Array.from({ length: places }, (_, place) => {
    const behind = (now - place) % places
    const at = behind <= 0 ? now - behind : now + places - behind
    return at < rows * passes ? at % rows : undefined
  })
}
