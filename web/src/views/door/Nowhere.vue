<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import { homeOf, person } from '../../session'

/** An address at which there is nothing, or nothing for whoever is here. */
const route = useRoute()
const forWhom = computed(() => route.query.for)
const home = computed(() => (person.value ? homeOf(person.value) : '/'))
</script>

<template>
  <div class="sheet stack">
    <template v-if="forWhom">
      <h1 data-test="not-for-you" :data-of="forWhom">
        This page is for {{ forWhom === 'instructor' ? 'instructors' : 'students' }}
      </h1>
      <p v-if="person" data-test="here-as">
        You are here as {{ person.name }}. If that is not you, leave and come in as yourself.
      </p>
    </template>
    <template v-else>
      <h1 data-test="nowhere">There is no page at this address</h1>
      <p>
        <b class="address">{{ route.path }}</b> leads nowhere. It may have been typed wrongly, or
        what was there is gone.
      </p>
    </template>
    <p>
      <RouterLink :to="home">{{ person ? 'Go to your first page' : 'Go to the door' }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.address {
  overflow-wrap: anywhere;
}
</style>
