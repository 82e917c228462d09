<script setup lang="ts">
import { computed } from 'vue'

import type { Analysis, Chart } from '../api/client'
import { passRows } from '../draw/noterows'
import NoteRows from './NoteRows.vue'

/** The passes under one another: what comes back in each is a habit, not chance. */
const props = defineProps<{ chart: Chart; analysis: Analysis; chosen?: number }>()
defineEmits<{ choose: [index: number] }>()

const rows = computed(() => passRows(props.chart, props.analysis))
</script>

<template>
  <NoteRows
    label="Passes under one another"
    :chart="chart"
    :rows="rows"
    :chosen="chosen"
    @choose="(index) => $emit('choose', index)"
  />
</template>
