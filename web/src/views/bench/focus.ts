/** The field that had the focus as a new drill was saved and opened under its own address. */
let label: string | null | undefined

const fieldOf = (name: string) =>
  document.querySelector<HTMLElement>(`[aria-label="${CSS.escape(name)}"]`)

export function rememberFocus() {
  label = document.activeElement?.getAttribute('aria-label')
}

/** Gives it to the same field again, once, where nobody has put it elsewhere. */
export function giveFocusBack() {
  const field = label ? fieldOf(label) : undefined
  label = undefined
  if (field && document.activeElement === document.body) field.focus()
}
