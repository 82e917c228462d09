<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import type { HandRecord } from '../../api/client'
import { handOf, hurtsHere, unsay } from '../../api/hand'
import { useAttempt } from '../../api/attempt'
import HandWords from '../../components/HandWords.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { weekWords } from '../../draw/handwords'
import { dayOf } from '../../draw/words'

/** Reported pain, above all else; and how much was slurred this week and the one before. */
const props = defineProps<{ studentId: string }>()
const record = ref<HandRecord>()
const { problem, attempt } = useAttempt()
const load = () => attempt(async () => (record.value = await handOf(props.studentId)))
onMounted(load)

const pain = computed(() =>
  record.value?.hurts
    ? record.value.reports.find((r) => r.report.kind === 'hurts' && !r.withdrawnAt && !r.clearedAt)
    : undefined,
)
const mistake = () =>
  attempt(async () => {
    if (pain.value) await unsay(props.studentId, pain.value.id)
    await load()
  })
const weeks = computed(() => weekWords(record.value?.weeks ?? [], new Date()))
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section v-if="pain || hurtsHere(studentId)" data-test="in-pain" class="sheet pain" role="alert">
    <div class="grow">
      <h2>
        You have reported pain<template v-if="pain">, {{ dayOf(pain.at) }}</template>
      </h2>
      <p><HandWords /> No ladder climbs until your instructor says so.</p>
    </div>
    <el-button v-if="pain" @click="mistake">It was pressed by mistake</el-button>
  </section>
  <p v-if="weeks" class="quiet">{{ weeks }}</p>
</template>

<style scoped>
.pain {
  border-left: 10px solid var(--ink);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3);
}
.grow {
  flex: 1 1 320px;
}
</style>
