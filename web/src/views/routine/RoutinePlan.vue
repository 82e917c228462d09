<script setup lang="ts">
import type { SavedRoutine } from '../../api/client'
import { amountWords, itemName } from '../../draw/routinewords'
import { rungWords } from '../../draw/words'

/** The items of a routine in their order, and where one is. */
const props = defineProps<{ saved: SavedRoutine; at?: number; choosable?: boolean }>()
const emit = defineEmits<{ choose: [item: number] }>()

function tempoOf(drill: string | undefined): string {
  const has = props.saved.drills.find((d) => d.drillId === drill)
  return has ? rungWords(has.rung) : ''
}
</script>

<template>
  <ol class="plan">
    <li
      v-for="(item, i) in saved.routine.items"
      :key="i"
      :class="[item.kind, { at: i === at, done: at !== undefined && i < at }]"
      :aria-current="i === at ? 'step' : undefined"
    >
      <component
        :is="choosable ? 'button' : 'span'"
        :type="choosable ? 'button' : undefined"
        class="name"
        @click="choosable && emit('choose', i)"
        >{{ itemName(item, saved) }}</component
      >
      <span v-if="item.kind === 'drill'" class="tempo figures">{{ tempoOf(item.drill) }}</span>
      <span class="amount figures">{{ amountWords(item) }}</span>
      <span v-if="item.text && item.kind !== 'note'" class="text">{{ item.text }}</span>
    </li>
  </ol>
</template>

<style scoped>
.plan {
  list-style: none;
  padding: 0;
  display: grid;
  font-size: 1.05em;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto minmax(7em, auto);
  gap: 0 var(--s4);
  align-items: baseline;
  padding: 0.35em 0 0.35em 0.7em;
  border-left: 6px solid transparent;
  border-bottom: var(--edge);
}
li.at {
  border-left-color: var(--ink);
}
li.done {
  color: var(--ink-3);
}
.rest,
.note {
  color: var(--ink-2);
}
.drill .name {
  font-weight: 700;
}
.note .name,
.rest .name {
  grid-column: 1 / 3;
}
.note .name {
  font-style: italic;
}
.name {
  text-align: left;
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
}
button.name {
  cursor: pointer;
  text-decoration: underline;
  text-decoration-color: var(--line-2);
  text-underline-offset: 3px;
}
.amount {
  text-align: right;
}
.text {
  grid-column: 1 / -1;
  color: var(--ink-2);
}
@media (width < 600px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .tempo {
    text-align: right;
  }
  .amount {
    grid-column: 1 / -1;
    text-align: left;
    color: var(--ink-2);
  }
  .note .amount,
  .rest .amount {
    grid-column: auto;
  }
  .note .name,
  .rest .name {
    grid-column: auto;
  }
}
</style>
