import { onKeyStroke, useCountdown } from '@vueuse/core'
import { ref } from 'vue'

import { handOf, sayOfHand } from '../../api/hand'
import { keyOf, type Deed } from '../routine/keys'

/** Elements whose keys are their own. */
const typing =
  'input, textarea, select, button, a, [role="slider"], [role="button"], [role="combobox"]'

/** Does what is meant by the keys that are pressed at a stand, unless something else is asked there. */
export function useDeeds(deeds: Partial<Record<Deed, () => unknown>>, off: () => boolean) {
  onKeyStroke(true, (event) => {
    const on = event.target as HTMLElement
    if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || on.closest(typing)) return
    const key = keyOf(event.key)
    const deed = key && deeds[key]
    if (!deed || off()) return
    event.preventDefault()
    void deed()
  })
}

/** How long somebody rests who says that they are tired, in s: as in a routine. */
const tiredSeconds = 60

/**
 * What a student says of the hand at a stand: tired, for which there is a rest, or that it hurts,
 * which stops everything.
 */
export function useHand(student: () => string, stop: () => unknown) {
  const hurting = ref(false)
  const rest = useCountdown(0)
  /** Where it can ache. */
  const places = ref<string[]>([])
  async function hurts() {
    hurting.value = true
    await stop()
    places.value = (await handOf(student()).catch(() => undefined))?.places ?? []
  }
  async function tired() {
    sayOfHand(student(), { kind: 'tired' })
    rest.start(tiredSeconds)
    await stop()
  }
  return { hurting, places, hurts, tired, rest }
}
