<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { answer, client, type TakeComment } from '../api/client'
import { useAttempt } from '../api/attempt'
import { teaches } from '../api/people'
import { count } from '../draw/words'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'
import TakeComments from './TakeComments.vue'

/** Comments that were not read yet, where one begins: each leads to its take. */
const unread = ref<TakeComment[]>([])
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    unread.value = await answer(client.GET('/comments/unread'))
  }),
)
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <section
    v-if="unread.length"
    data-test="unread"
    :data-of="unread.length"
    class="sheet"
    aria-label="Comments not read yet"
  >
    <h2>{{ count(unread.length, 'comment') }} not read yet</h2>
    <TakeComments :comments="unread" :with-student="!!person && teaches(person)" />
  </section>
</template>

<style scoped>
section {
  border-left: 10px solid var(--ink);
}
</style>
