import { computed, ref } from 'vue'

import { problemOf, type Problem } from './client'

/** Runs what may fail, and keeps what went wrong with the last, to be shown. */
export function useAttempt() {
  const problem = ref<Problem>()
  /** What is being done, where only one thing is done at a time; empty for nothing. */
  const doing = ref('')
  const busy = computed(() => doing.value !== '')

  async function attempt(action: () => Promise<unknown>): Promise<void> {
    problem.value = undefined
    try {
      await action()
    } catch (thrown) {
      problem.value = problemOf(thrown)
    }
  }
  /** Does nothing while something is done already: a second press is none. */
  async function once(action: () => Promise<unknown>, what = 'At it'): Promise<void> {
    if (busy.value) return
    doing.value = what
    await attempt(action)
    doing.value = ''
  }
  return { problem, busy, doing, attempt, once }
}
