<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import type { Bench as Catalogue } from '../../api/client'
import { catalogue } from '../../bench/catalogue'
import { newDraftId } from '../../bench/drafts'
import ProblemNote from '../../components/ProblemNote.vue'
import Bench from './Bench.vue'

/** The bench needs to know what drills can be made from before it opens. */
const bench = ref<Catalogue>()
const { problem, attempt } = useAttempt()
const route = useRoute()
const router = useRouter()
const isNew = computed(() => route.params.id === 'new')
/** Which new drill lies here: its address says it, so that a reload finds it again. */
const draft = computed(() => String(route.query.draft ?? ''))
watch(
  [isNew, draft],
  () => {
    if (isNew.value && !draft.value)
      void router.replace({ path: route.path, query: { draft: newDraftId() } })
  },
  { immediate: true },
)
onMounted(() =>
  attempt(async () => {
    bench.value = await catalogue()
  }),
)
</script>

<template>
  <Bench v-if="bench && (draft || !isNew)" :key="draft" :bench="bench" :draft="draft" />
  <ProblemNote v-else-if="problem" :problem="problem" />
</template>
