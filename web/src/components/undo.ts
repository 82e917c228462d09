import { ElMessage } from 'element-plus'
import { h } from 'vue'

import { problemOf } from '../api/client'

/** How long what was done can be undone from the message, in ms. */
const undoTime = 12_000

/** Says what was done, with a button that undoes it; what it returns takes the offer back. */
export function undoable(text: string, undo: () => Promise<unknown>): () => void {
  let done = false
  const message = ElMessage({
    message: h('span', { class: 'undoable' }, [
      text,
      h(
        'button',
        { type: 'button', class: 'undo', 'data-test': 'undo-it', onClick: () => void run() },
        'Undo',
      ),
    ]),
    duration: undoTime,
    showClose: true,
  })
  async function run() {
    if (done) return
    done = true
    message.close()
    try {
      await undo()
    } catch (thrown) {
      ElMessage({ message: problemOf(thrown).detail, duration: 8000 })
    }
  }
  return () => {
    done = true
    message.close()
  }
}
