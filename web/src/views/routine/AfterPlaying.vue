<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ref } from 'vue'

import { sayOfHand } from '../../api/hand'
import AchePlaces from '../../components/AchePlaces.vue'

/** How much effort it was and where it aches, in ten seconds. */
const props = defineProps<{ studentId: string; places: string[] }>()

const effort = ref<number>()
const aches = ref<string[]>([])
let id: string | undefined

function say() {
  if (effort.value === undefined) return
  const report = { kind: 'after' as const, effort: effort.value, aches: aches.value }
  id = sayOfHand(props.studentId, report, id)
}
function choose(n: number) {
  effort.value = n
  say()
}
function ache(places: string[]) {
  aches.value = places
  say()
}
// 1 to 9, and 0 for 10.
onKeyStroke(
  (event) => /^[0-9]$/.test(event.key),
  (event) => choose(Number(event.key) || 10),
)
</script>

<template>
  <section data-test="after" class="after">
    <h2>How much effort was it?</h2>
    <div class="scale" role="radiogroup" aria-label="Effort, 1 to 10">
      <button
        v-for="n in 10"
        :key="n"
        type="button"
        role="radio"
        :aria-checked="effort === n"
        @click="choose(n)"
      >
        {{ n }}
      </button>
    </div>
    <p class="ends small quiet"><span>none at all</span><span>as much as I have</span></p>
    <template v-if="effort !== undefined">
      <h2>Does it ache anywhere?</h2>
      <AchePlaces :model-value="aches" :places="places" @update:model-value="ache" />
      <p data-test="effort-kept" class="quiet" role="status">
        Kept. Your instructor sees it as soon as there is a line.
      </p>
    </template>
  </section>
</template>

<style scoped>
.after {
  display: grid;
  gap: var(--s3);
  max-width: 760px;
}
.scale {
  display: grid;
  grid-template-columns: repeat(10, minmax(0, 1fr));
  gap: clamp(3px, 0.6vw, 8px);
}
.scale button {
  min-height: 54px;
  font: inherit;
  font-size: clamp(18px, 2vw, 30px);
  font-weight: 700;
  color: var(--ink);
  background: none;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  cursor: pointer;
}
.scale button[aria-checked='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--ground);
}
.ends {
  display: flex;
  justify-content: space-between;
}
</style>
