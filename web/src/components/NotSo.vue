<script setup lang="ts">
import { computed } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type Correction, type MeasuredTake, type Take } from '../api/client'
import { newId } from '../api/ids'
import { deniedWords, toldOf } from '../draw/correctionwords'
import ProblemNote from './ProblemNote.vue'

/**
 * Says of anything told of a take that it was not so. Verdict, figures and ladder follow; it
 * can be taken back.
 */
const props = defineProps<{ take: MeasuredTake }>()
const emit = defineEmits<{ corrected: [take: Take] }>()
const { problem, busy, once } = useAttempt()

const size = computed(() => props.take.chart.notes.length)
const passes = computed(() => props.take.analysis.notes.length / size.value)
const told = computed(() => toldOf(props.take.analysis, props.take.advice, size.value))
const said = computed(() => props.take.corrections)
const path = (correctionId: string) => ({
  params: { path: { takeId: props.take.summary.id, correctionId } },
})
const deny = (body: Correction) =>
  once(async () => {
    const call = client.PUT('/takes/{takeId}/corrections/{correctionId}', {
      ...path(newId()),
      body,
    })
    emit('corrected', await answer(call))
  })
const takeBack = (id: string) =>
  once(async () => {
    const call = client.DELETE('/takes/{takeId}/corrections/{correctionId}', path(id))
    emit('corrected', await answer(call))
  })
</script>

<template>
  <details v-if="told.length || said.length" :open="said.length > 0" class="not-so">
    <summary data-test="not-so">Was something not so?</summary>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="small quiet">
      Say it, and it is told no more: figures and ladder follow. It stays with the take and can be
      taken back.
    </p>
    <ul>
      <li v-for="c in said" :key="c.id">
        <s class="grow">{{ deniedWords(c.what, size, passes) }}</s>
        <span class="small quiet">{{ c.author ? `${c.author} says` : 'it was said' }}: not so</span>
        <button
          data-test="so-after-all"
          type="button"
          class="link"
          :disabled="busy"
          @click="takeBack(c.id)"
        >
          Take it back
        </button>
      </li>
      <li v-for="t in told" :key="t.text">
        <span class="grow">{{ t.text }}</span>
        <button
          data-test="was-not-so"
          :data-of="t.what.kind"
          type="button"
          class="link"
          :disabled="busy"
          @click="deny(t.what)"
        >
          It was not so
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: var(--s2) 0 0;
}
li {
  font-size: var(--t-body);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  padding: var(--s2) 0;
  border-top: 1px solid var(--line);
}
.grow {
  flex: 1 1 300px;
}
.grow::first-letter {
  text-transform: uppercase;
}
</style>
