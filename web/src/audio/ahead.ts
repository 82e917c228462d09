import earUrl from '../device/ear.wasm?url'
import execUrl from '../device/wasm_exec.js?url'
import workletUrl from './recorder.worklet.ts?worker&url'

/** Fetches what a stand needs of files, so that it is there when there is no line. */
export async function fetchAhead(): Promise<void> {
  const lazy = import('../views/routine/RoutineStand.vue')
  await Promise.all([lazy, ...[earUrl, execUrl, workletUrl].map((url) => fetch(url))])
}
