import { ref, shallowRef } from 'vue'

import {
  answer,
  client,
  problemOf,
  type DrillFile,
  type Preview,
  type Problem,
} from '../api/client'

/**
 * Asks for previews as fast as the server answers: one request is under way at
 * a time, and when it is answered the latest state is asked for, so that a drag
 * is followed closely and never queued up.
 */
export function usePreview() {
  const preview = shallowRef<Preview>()
  /** The last preview that could be drawn. */
  const drawn = shallowRef<Preview>()
  const problem = ref<Problem>()
  let wanted: { file: DrillFile; whom: string | undefined } | undefined
  let asking = false

  async function look(file: DrillFile, whom: string | undefined) {
    wanted = { file, whom }
    if (asking) return
    asking = true
    while (wanted) {
      const { file, whom }: { file: DrillFile; whom: string | undefined } = wanted
      wanted = undefined
      try {
        preview.value = await answer(
          client.POST('/preview', { body: file, params: { query: { for: whom } } }),
        )
        if (preview.value.chart) drawn.value = preview.value
        problem.value = undefined
      } catch (thrown) {
        problem.value = problemOf(thrown)
      }
    }
    asking = false
  }
  return { preview, drawn, problem, look }
}
