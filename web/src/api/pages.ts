import { computed, ref, shallowRef } from 'vue'

/** A part of a list, and where the next one begins. */
export interface Page<T> {
  items: T[]
  next?: string
}

/** Asks for the page that begins somewhere; for the first one without. */
export type Ask<T> = (after?: string) => Promise<Page<T>>

/** The most items that a screen holds of a list. */
const most = 5000

/** All items of a list, page after page. */
export async function everything<T>(ask: Ask<T>): Promise<T[]> {
  const all: T[] = []
  let after: string | undefined
  do {
    const page: Page<T> = await ask(after)
    all.push(...page.items)
    after = page.next
  } while (after !== undefined && all.length < most)
  return all
}

/** A list that is shown page after page. */
export function usePages<T>(ask: Ask<T>) {
  const items = shallowRef<T[]>([])
  const next = ref<string>()
  const asked = ref(false)
  const more = computed(() => next.value !== undefined)
  async function load(after?: string) {
    const page = await ask(after)
    items.value = after === undefined ? page.items : [...items.value, ...page.items]
    next.value = page.next
    asked.value = true
  }
  return { items, more, asked, first: () => load(), further: () => load(next.value) }
}
