<script setup lang="ts">
import { defineAsyncComponent } from 'vue'

import type { Chart } from '../../api/client'
import type { Marked } from '../../audio/ear'
import BigTab from '../../components/BigTab.vue'
import { shown } from './choices'

// The staff brings a large library; who reads tab does not wait for it.
const BigStaff = defineAsyncComponent(() => import('../../components/BigStaff.vue'))

/** The music as it is read on this device: tab, or the staff. */
defineProps<{ chart: Chart; now?: number; pass?: number; marks?: Map<number, Marked> }>()
</script>

<template>
  <BigStaff v-if="shown === 'staff'" :chart="chart" :now="now" :pass="pass" />
  <BigTab v-else :chart="chart" :now="now" :pass="pass" :marks="marks" />
</template>
