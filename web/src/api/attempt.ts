import { ref } from 'vue'

import { problemOf, type Problem } from './client'

/** Runs things one after another and keeps what went wrong with the last, to be shown. */
export function useAttempt() {
  const problem = ref<Problem>()
  async function attempt(action: () => Promise<unknown>): Promise<void> {
    problem.value = undefined
    try {
      await action()
    } catch (thrown) {
      problem.value = problemOf(thrown)
    }
  }
  return { problem, attempt }
}
