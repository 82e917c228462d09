/** The keys of the bench, as they are told. */
export const shortcuts = [
  { key: 'H', does: 'hear it, or stop' },
  { key: '[ ]', does: 'a fret down, a fret up' },
  { key: ', .', does: 'thicker strings, thinner strings' },
  { key: 'M', does: 'mirror' },
  { key: 'R', does: 'reverse' },
  { key: 'Ctrl Z', does: 'undo; with shift, redo' },
  { key: 'Ctrl S', does: 'save' },
]
