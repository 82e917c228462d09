<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { useAttempt } from '../../api/attempt'
import type { Bench as Catalogue } from '../../api/client'
import { catalogue } from '../../bench/catalogue'
import ProblemNote from '../../components/ProblemNote.vue'
import Bench from './Bench.vue'

/** The bench needs to know what drills can be made from before it opens. */
const bench = ref<Catalogue>()
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    bench.value = await catalogue()
  }),
)
</script>

<template>
  <Bench v-if="bench" :bench="bench" />
  <ProblemNote v-else-if="problem" :problem="problem" />
</template>
