<script setup lang="ts">
import { count } from '../../draw/words'

/** The last two weeks, a mark for each day on which something was played. */
const props = defineProps<{ days: boolean[] }>()
const played = () => props.days.filter(Boolean).length
</script>

<template>
  <span
    class="days"
    role="img"
    :aria-label="`${count(played(), 'day')} of the last ${days.length}`"
  >
    <i v-for="(on, i) in days" :key="i" :class="{ on, monday: i === 7 }"></i>
    <b class="figures" aria-hidden="true">{{ played() }}</b>
  </span>
</template>

<style scoped>
.days {
  display: inline-flex;
  align-items: center;
  gap: 3px;
  height: 1.4em;
}
i {
  width: 5px;
  height: 5px;
  background: var(--line);
}
i.on {
  height: 16px;
  background: var(--ink);
}
i.monday {
  margin-left: 5px;
}
b {
  margin-left: 6px;
  min-width: 1.2em;
  text-align: right;
}
</style>
