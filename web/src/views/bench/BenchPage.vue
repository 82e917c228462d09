<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { problemOf, type Bench as Catalogue, type Problem } from '../../api/client'
import { catalogue } from '../../bench/catalogue'
import ProblemNote from '../../components/ProblemNote.vue'
import Bench from './Bench.vue'

/** The bench needs to know what drills can be made from before it opens. */
const bench = ref<Catalogue>()
const problem = ref<Problem>()
onMounted(async () => {
  try {
    bench.value = await catalogue()
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
})
</script>

<template>
  <Bench v-if="bench" :bench="bench" />
  <ProblemNote v-else-if="problem" :problem="problem" />
</template>
