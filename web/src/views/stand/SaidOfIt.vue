<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client } from '../../api/client'

/** What was said of the takes of this drill and not read yet: before it is played again. */
const props = defineProps<{ drillName: string }>()
const said = ref<{ takeId: string; text: string }[]>([])
const most = 2

onMounted(async () => {
  try {
    const [comments, reviews] = await Promise.all([
      answer(client.GET('/comments/unread')),
      answer(client.GET('/reviews/unread')),
    ])
    said.value = [
      ...reviews
        .filter((r) => r.drillName === props.drillName && r.review.note)
        .map((r) => ({ takeId: r.review.takeId, text: `${r.review.author}: “${r.review.note}”` })),
      ...comments
        .filter((c) => c.drillName === props.drillName)
        .map((c) => ({ takeId: c.takeId, text: `${c.author.name}: “${c.text}”` })),
    ].slice(0, most)
  } catch {
    // Without a line nothing is known; the practice page says it.
  }
})
</script>

<template>
  <p v-for="s in said" :key="s.text" class="said">
    <RouterLink :to="`/takes/${s.takeId}`">{{ s.text }}</RouterLink>
  </p>
</template>

<style scoped>
.said {
  border-left: 6px solid var(--ink);
  padding-left: var(--s3);
}
</style>
