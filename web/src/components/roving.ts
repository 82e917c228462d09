import { ref } from 'vue'

/** Where a key leads from a place in a list; nothing for keys that lead nowhere. */
export function stepTo(key: string, at: number, count: number): number | undefined {
  const to = {
    ArrowRight: at + 1,
    ArrowDown: at + 1,
    ArrowLeft: at - 1,
    ArrowUp: at - 1,
    Home: 0,
    End: count - 1,
  }[key]
  return to === undefined ? undefined : Math.min(count - 1, Math.max(0, to))
}

/**
 * Many things of one kind are one stop of the tab key: arrows go from one to the next, Enter
 * and Space press what the mouse would. Each of them has a name in data-roving, and onKeydown
 * listens around them.
 */
export function useRoving(first: () => string | undefined) {
  const last = ref<string>()
  const tabindexOf = (name: string) => ((last.value ?? first()) === name ? 0 : -1)
  function onFocus(event: FocusEvent) {
    const name = (event.target as SVGElement).dataset?.roving
    if (name !== undefined) last.value = name
  }
  function onKeydown(event: KeyboardEvent) {
    const target = event.target as SVGElement
    if (target.dataset?.roving === undefined) return
    if (event.key === 'Enter' || event.key === ' ')
      target.dispatchEvent(new MouseEvent('click', { bubbles: true }))
    else {
      const around = event.currentTarget as Element
      const all = [...around.querySelectorAll<SVGElement>('[data-roving]')]
      const to = stepTo(event.key, all.indexOf(target), all.length)
      if (to === undefined) return
      all[to]?.focus()
    }
    event.preventDefault()
    event.stopPropagation() // arrows and Space mean something else to the page
  }
  return { tabindexOf, onFocus, onKeydown }
}
