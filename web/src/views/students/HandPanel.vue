<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import type { HandRecord } from '../../api/client'
import { clearPain, handOf } from '../../api/hand'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'
import { reportWords, weekWords } from '../../draw/handwords'
import { momentOf } from '../../draw/words'

/** What a student said of their hand; of pain, whether their ladders climb again. */
const props = defineProps<{ studentId: string; name: string }>()
const record = ref<HandRecord>()
const { problem, attempt } = useAttempt()
const load = () => attempt(async () => (record.value = await handOf(props.studentId)))
onMounted(load)

const weeks = computed(() => weekWords(record.value?.weeks ?? [], new Date()))
const clear = () =>
  attempt(async () => {
    await clearPain(props.studentId)
    await load()
  })
</script>

<template>
  <section
    v-if="record"
    data-test="hand"
    :data-of="record.hurts ? 'hurts' : 'well'"
    class="sheet stack"
    :class="{ hurts: record.hurts }"
  >
    <h2>Hand</h2>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="record.hurts" class="row">
      <p class="grow">
        <b>{{ name }} has reported pain.</b> No ladder climbs until you say so. Speak with them
        first; whether it needs a doctor or hand therapist is not for Manudrill to say.
      </p>
      <el-button data-test="clear-pain" type="primary" @click="clear"
        >Let the ladders climb again</el-button
      >
    </div>
    <ul v-if="record.reports.length">
      <li v-for="r in record.reports" :key="r.id" :class="{ off: r.withdrawnAt }">
        <span class="quiet">{{ momentOf(r.at) }}</span> {{ reportWords(r.report)
        }}<template v-if="r.withdrawnAt">, pressed by mistake</template
        ><template v-else-if="r.clearedAt">, cleared by {{ r.clearedBy }}</template>
      </li>
    </ul>
    <p v-else class="quiet">
      Nothing reported. At the stand “tired” and “it hurts” are one key each.
    </p>
    <p v-if="weeks" class="quiet">{{ weeks }}</p>
  </section>
</template>

<style scoped>
.hurts {
  border-left: 10px solid var(--ink);
}
ul {
  list-style: none;
  padding: 0;
  max-height: 220px;
  overflow-y: auto;
}
.off {
  color: var(--ink-3);
}
</style>
