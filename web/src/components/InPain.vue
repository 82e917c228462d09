<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted } from 'vue'

import { useAttempt } from '../api/attempt'
import { handOf, unsay } from '../api/hand'
import { painOf } from '../api/pain'
import { dayOf } from '../draw/words'
import { person } from '../session'
import HandWords from './HandWords.vue'
import ProblemNote from './ProblemNote.vue'

/** Reported pain, above all else, wherever somebody plays. */
const props = defineProps<{ studentId: string }>()
const { problem, attempt } = useAttempt()
const pain = computed(() => painOf(props.studentId))
const own = computed(() => person.value?.id === props.studentId)
onMounted(() => handOf(props.studentId).catch(() => undefined)) // without a line it stands as it is
const mistake = () =>
  attempt(async () => {
    if (pain.value) await unsay(props.studentId, pain.value.id)
    await handOf(props.studentId).catch(() => undefined)
  })
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section v-if="pain" data-test="in-pain" class="sheet pain" role="alert">
    <div class="grow">
      <h2>{{ own ? 'You have reported pain' : 'Pain has been reported' }}, {{ dayOf(pain.at) }}</h2>
      <p>
        <HandWords /> No ladder climbs until
        {{ own ? 'your instructor says so' : 'an instructor says so' }}.
      </p>
    </div>
    <el-button v-if="own" data-test="pain-mistake" @click="mistake"
      >It was pressed by mistake</el-button
    >
  </section>
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
