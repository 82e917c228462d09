<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type Unread } from '../api/client'
import { useAttempt } from '../api/attempt'
import { teaches } from '../api/people'
import { count, momentOf } from '../draw/words'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'

/** Comments that were not read yet, where one begins: each leads to its take. */
const unread = ref<Unread[]>([])
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    unread.value = await answer(client.GET('/comments/unread'))
  }),
)
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section v-if="unread.length" class="sheet" aria-label="Comments not read yet">
    <h2>{{ count(unread.length, 'comment') }} not read yet</h2>
    <ul>
      <li v-for="(u, i) in unread" :key="i">
        <b>{{ u.author.name }}</b> on
        <RouterLink :to="{ path: `/takes/${u.takeId}`, query: { note: u.note } }"
          >{{ u.drillName
          }}<template v-if="person && teaches(person)">
            by {{ u.student.name }}</template
          ></RouterLink
        >, {{ momentOf(u.writtenAt) }}: “{{ u.text }}”
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  border-left: 10px solid var(--ink);
}
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
  margin-top: var(--s2);
}
</style>
