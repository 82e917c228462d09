<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type Contradictions } from '../api/client'
import { kindWords } from '../draw/correctionwords'
import { count } from '../draw/words'
import ProblemNote from './ProblemNote.vue'

/** How often what was told of takes was not so, by kind, without names. */
const kept = ref<Contradictions>()
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => (kept.value = await answer(client.GET('/studio/contradictions')))),
)
</script>

<template>
  <section class="sheet stack" data-test="contradictions">
    <h2>What was not so</h2>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="kept">
      <p class="quiet">
        Of {{ count(kept.takes, 'measured take') }}, as students and teachers say on the page of a
        take.
      </p>
      <p v-if="kept.kinds.length === 0">Nothing was said not to be so yet.</p>
      <table v-else>
        <thead>
          <tr>
            <th scope="col">What was told</th>
            <th scope="col" class="number">not so</th>
            <th scope="col" class="number">takes</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="k in kept.kinds" :key="k.of + k.kind">
            <th scope="row">{{ kindWords(k) }}</th>
            <td class="number figures">{{ count(k.said, 'time') }}</td>
            <td class="number figures">{{ k.takes }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: var(--s1) var(--s4) var(--s1) 0;
}
tbody th {
  font-weight: 400;
}
tbody th::first-letter {
  text-transform: uppercase;
}
.number {
  text-align: right;
}
</style>
