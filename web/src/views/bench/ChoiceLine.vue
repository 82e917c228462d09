<script setup lang="ts" generic="V extends string | number">
/** A labelled choice of a few, all in sight. */
const value = defineModel<V>({ required: true })
const props = defineProps<{
  name: string
  options: readonly { label: string; value: V; about?: string }[]
  label?: string
  stacked?: boolean
}>()

/** Only the chosen one is reached by tab; arrows go from it to the others. */
function reached(o: { value: V }, at: number): boolean {
  return props.options.some((p) => p.value === value.value) ? o.value === value.value : at === 0
}
function key(event: KeyboardEvent, at: number) {
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  const next = (at + by + props.options.length) % props.options.length
  const chosen = props.options[next]
  if (chosen) value.value = chosen.value
  const buttons = (event.currentTarget as HTMLElement).parentElement?.children
  ;(buttons?.[next] as HTMLElement | undefined)?.focus()
}
</script>

<template>
  <div :class="['line', { stacked }]" role="radiogroup" :aria-label="name">
    <span>{{ label ?? name }}</span>
    <span class="chips">
      <button
        v-for="(o, at) in options"
        :key="o.value"
        type="button"
        class="chip"
        role="radio"
        :aria-checked="o.value === value"
        :data-of="o.value"
        :title="o.about"
        :tabindex="reached(o, at) ? 0 : -1"
        @keydown="key($event, at)"
        @click="value = o.value"
      >
        {{ o.label }}
      </button>
    </span>
  </div>
</template>

<style scoped>
@import './form.css';
.line.stacked {
  display: grid;
  gap: var(--s1);
}
</style>
