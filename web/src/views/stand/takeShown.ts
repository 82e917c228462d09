import { computed, onBeforeUnmount, ref, shallowRef, watchEffect } from 'vue'

import { isMeasured, type MeasuredTake, type Take } from '../../api/client'
import { settled } from '../../api/takes'
import { outbox } from '../../audio/outbox'
import { saysOtherwise } from './heardHere'

/**
 * The take whose verdict is shown: this device's at once, the studio's once it is there,
 * unless another take has been begun since.
 */
export function useTakeShown(judged: () => Promise<void>) {
  const take = ref<Take>()
  /** What this device has said of the take shown, until the studio has. */
  const ours = shallowRef<MeasuredTake>()
  /** The studio has judged the take shown otherwise than this device. */
  const otherwise = ref(false)
  /** The take that is listened to just now; a later one takes its place. */
  const listening = ref<string>()
  /** It is still on this device, for the server cannot be reached. */
  const waits = computed(
    () => !!outbox.fault.value && outbox.waiting.value.some((t) => t.id === listening.value),
  )
  // One that the server refuses is not listened to: the list of recordings says why.
  watchEffect(() => {
    if (outbox.all.value.some((t) => t.id === listening.value && t.refused))
      listening.value = undefined
  })
  let left = false
  onBeforeUnmount(() => (left = true))

  /** Shows what this device says. */
  function showOurs(said: MeasuredTake) {
    take.value = ours.value = said
  }

  /** Shows a take once it is measured. */
  async function show(made: Take) {
    const takeId = made.summary.id
    const gone = () => left || listening.value !== takeId
    const ready = await settled(made, gone)
    if (gone()) return
    listening.value = undefined
    otherwise.value = !!ours.value && isMeasured(ready) && saysOtherwise(ready, ours.value)
    ours.value = undefined
    take.value = ready
    await judged()
  }

  /** Hands something in and shows it. Meanwhile one can play on. */
  async function follow(takeId: string, send: () => Promise<Take>) {
    listening.value = takeId
    try {
      await show(await send())
    } catch (thrown) {
      if (listening.value === takeId) listening.value = undefined
      throw thrown
    }
  }

  /** Shows none. */
  function clear() {
    take.value = ours.value = undefined
    otherwise.value = false
  }

  return { take, ours, otherwise, listening, waits, showOurs, show, follow, clear }
}
