<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { TakeSummary } from '../../api/client'
import { asideNames, momentOf, rungWords, sourceNames } from '../../draw/words'

/** What a take is of; its sound stands beside it. */
defineProps<{ summary: TakeSummary }>()
</script>

<template>
  <div class="row head">
    <div class="title">
      <h1>{{ summary.drillName }}</h1>
      <p data-test="take-facts" class="quiet">
        {{ summary.student.name }}, {{ momentOf(summary.recordedAt) }}, at
        {{ rungWords(summary.rung, true) }}, {{ sourceNames[summary.source]
        }}{{ summary.aside ? `, ${asideNames[summary.aside]}` : summary.demo ? ', demo' : '' }}.
        <RouterLink data-test="all-takes" :to="`/progress/${summary.assignmentId}`"
          >All takes of this drill</RouterLink
        >
      </p>
      <slot name="notes" />
    </div>
    <slot />
  </div>
</template>

<style scoped>
.title {
  flex: 1 1 320px;
}
</style>
