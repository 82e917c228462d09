<script setup lang="ts">
import { person } from '../../session'
import OverviewPanel from './OverviewPanel.vue'

/** How it goes with whoever is here. */
</script>

<template>
  <div class="stack">
    <h1>My progress</h1>
    <OverviewPanel v-if="person" :student-id="person.id" />
  </div>
</template>
