import { onKeyStroke } from '@vueuse/core'

/** The keys of the bench, as they are told. */
export const shortcuts = [
  { key: 'H', does: 'hear it, or stop' },
  { key: '[ ]', does: 'a fret down, a fret up' },
  { key: ', .', does: 'thicker strings, thinner strings' },
  { key: 'M', does: 'mirror' },
  { key: 'R', does: 'reverse' },
  { key: 'Ctrl Z', does: 'undo; with shift, redo' },
  { key: 'Ctrl S', does: 'save' },
  { key: '?', does: 'all keys' },
]

/** What the plain keys do, and those with Ctrl. */
export interface Actions {
  plain: Record<string, () => unknown>
  save: () => unknown
  undo: () => void
  redo: () => void
}

/** The action a key stands for, where nobody is typing text. */
export function actionOf(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
  typing: 'text' | 'number' | 'nothing',
  actions: Actions,
): (() => unknown) | undefined {
  const key = event.key.toLowerCase()
  if (event.ctrlKey || event.metaKey) {
    if (key === 's') return actions.save
    if (typing === 'text') return undefined // the field undoes by itself
    if (key === 'y' || (key === 'z' && event.shiftKey)) return actions.redo
    return key === 'z' ? actions.undo : undefined
  }
  // A comma or a point belongs to the number that is typed.
  if (event.altKey || typing === 'text' || (typing === 'number' && ',.'.includes(key)))
    return undefined
  return actions.plain[key]
}

/** Listens to the keys of the bench, while no dialog is open. */
export function useShortcuts(actions: Actions, busy: () => boolean): void {
  onKeyStroke(true, (event) => {
    const on = event.target as HTMLElement
    const number = on.closest('[role="spinbutton"]')
    const text = !number && on.closest('input, textarea, select')
    const typing = number ? 'number' : text ? 'text' : 'nothing'
    const act = busy() ? undefined : actionOf(event, typing, actions)
    if (!act) return
    event.preventDefault()
    if (number && act !== actions.save) on.blur() // what is typed there is set first
    void act()
  })
}
