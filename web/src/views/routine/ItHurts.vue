<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { sayOfHand, unsay } from '../../api/hand'
import { useAttempt } from '../../api/attempt'
import AchePlaces from '../../components/AchePlaces.vue'
import HandWords from '../../components/HandWords.vue'
import ProblemNote from '../../components/ProblemNote.vue'

/** Everything has stopped, because it hurts. It is told at once; it can be taken back. */
const props = defineProps<{ studentId: string; places: string[] }>()
const emit = defineEmits<{ mistake: [] }>()

const aches = ref<string[]>([])
let id: string | undefined
const { problem, attempt } = useAttempt()

const say = () => (id = sayOfHand(props.studentId, { kind: 'hurts', aches: aches.value }, id))
onMounted(say)
function ache(places: string[]) {
  aches.value = places
  say()
}
const mistake = () =>
  attempt(async () => {
    if (id) await unsay(props.studentId, id)
    emit('mistake')
  })
</script>

<template>
  <section data-test="stop-for-today" class="hurts" role="alert">
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="word">Stop for today.</p>
    <p><HandWords /></p>
    <p>Your instructor is told, as soon as there is a line. Until they say so, no ladder climbs.</p>
    <h2>Where?</h2>
    <AchePlaces :model-value="aches" :places="places" @update:model-value="ache" />
    <div class="row">
      <RouterLink data-test="back-to-practice" to="/practice">Back to practice</RouterLink>
      <el-button @click="mistake">I pressed it by mistake</el-button>
    </div>
  </section>
</template>

<style scoped>
.hurts {
  display: grid;
  gap: var(--s4);
  font-size: clamp(18px, 2vw, 34px);
  max-width: 40em;
}
.word {
  font-size: clamp(34px, 5vw, 90px);
  font-weight: 700;
  line-height: 1.1;
}
.row {
  font-size: var(--t-body);
}
</style>
