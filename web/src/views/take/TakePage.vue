<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import { isMeasured, type Take } from '../../api/client'
import { getTake, measureAgain, settled } from '../../api/takes'
import ProblemNote from '../../components/ProblemNote.vue'
import SoundBar from '../../components/SoundBar.vue'
import TakeHead from './TakeHead.vue'
import TakeReport from './TakeReport.vue'

const id = String(useRoute().params.id)
const take = ref<Take>()
const { problem, attempt } = useAttempt()
let left = false
onBeforeUnmount(() => (left = true))

/** Looks at the take, and again for as long as it waits. */
async function look() {
  take.value = await getTake(id)
  take.value = await settled(take.value, () => left)
}
onMounted(() => attempt(look))

function again() {
  return attempt(async () => {
    const before = take.value?.summary.listener
    await measureAgain(id)
    take.value = await getTake(id)
    // What was measured stays until it is measured again; a minute is long enough to look.
    for (let i = 0; i < 60 && !left && take.value.summary.listener === before; i++) {
      if (take.value.summary.failure) break
      await new Promise((resolve) => setTimeout(resolve, 1000))
      take.value = await getTake(id)
    }
  })
}
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <TakeReport
      v-if="take && isMeasured(take)"
      :key="take.summary.listener"
      :take="take"
      @measure-again="again"
      @corrected="(now) => (take = now)"
    />
    <template v-else-if="take">
      <TakeHead :summary="take.summary">
        <SoundBar :src="`/api/takes/${id}/sound`" />
      </TakeHead>
      <section v-if="take.summary.state === 'waiting'" class="sheet stack" role="status">
        <h2>Listening to every note …</h2>
        <p>
          The recording is kept. It is measured as soon as its turn comes; this page shows it then.
        </p>
      </section>
      <section v-else class="sheet stack">
        <h2>This take could not be measured</h2>
        <p>{{ take.summary.failure }}</p>
        <p><el-button type="primary" @click="again">Measure again</el-button></p>
      </section>
    </template>
  </div>
</template>
