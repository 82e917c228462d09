import { useEventListener } from '@vueuse/core'

/** A page that is a letter away. */
export interface Page {
  to: string
  text: string
  /** After G. */
  key: string
}

/** How long after G its letter is waited for, ms. */
const patience = 1500

/** Knows G and the letter after it. */
export class AfterG {
  private since = -Infinity

  /** The letter that comes after G, where this one does, pressed at a moment in ms. */
  letter(key: string, at: number): string | undefined {
    const waited = at - this.since < patience
    this.since = !waited && key.toLowerCase() === 'g' ? at : -Infinity
    return waited ? key.toLowerCase() : undefined
  }
}

/** Whether a dialog is open; those that wait to be opened lie hidden in the page. */
export const inDialog = () =>
  [...document.querySelectorAll('[role=dialog]')].some((d) => d.checkVisibility())

const isTyping = (at: EventTarget | null) =>
  at instanceof HTMLInputElement ||
  at instanceof HTMLTextAreaElement ||
  at instanceof HTMLSelectElement ||
  (at instanceof HTMLElement && at.isContentEditable)

/**
 * Goes to a page by G and a letter, from wherever nothing is typed, no dialog is open and the
 * keys are not taken; the letter means nothing to the page itself.
 */
export function useGoTo(pages: () => Page[], go: (to: string) => void, taken: () => boolean) {
  const keys = new AfterG()
  useEventListener(
    'keydown',
    (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || taken()) return
      if (inDialog()) return
      const letter = keys.letter(e.key, e.timeStamp)
      const place = letter && pages().find((p) => p.key === letter)
      if (!place) return
      e.preventDefault()
      e.stopImmediatePropagation()
      go(place.to)
    },
    { capture: true },
  )
}
