<script setup lang="ts">
import { computed } from 'vue'

import type { Bench, Pattern, PatternOf } from '../../api/client'
import ChoiceLine from './ChoiceLine.vue'
import CombinationsField from './CombinationsField.vue'
import { fields, type Field } from './fields'
import ListLine from './ListLine.vue'
import { measured } from './measured'
import NumberLine from './NumberLine.vue'
import OrdersField from './OrdersField.vue'
import SwitchLine from './SwitchLine.vue'

/** What one pattern is made of; the family says which. */
const pattern = defineModel<Pattern>({ required: true })
const props = defineProps<{
  bench: Bench
  /** The fret under the first finger, from which distances are counted. */
  position: number
  fault?: string
}>()

const parts = computed(() => pattern.value as unknown as Record<string, never>)
const own = computed(() => fields[pattern.value.kind] ?? [])
const slurred = computed(() =>
  pattern.value.kind === 'slurCombinations' ? pattern.value : undefined,
)
const ordered = computed(() =>
  'orders' in pattern.value ? (pattern.value as PatternOf<'fingerPerFret'>) : undefined,
)
/** How a run is broken into groups. */
const sequence = computed(() => ('sequence' in pattern.value ? pattern.value.sequence : undefined))

const byFret = computed(() => 'atFrets' in pattern.value && Boolean(pattern.value.atFrets))

function set(part: string, value: unknown) {
  if (part === 'atFrets') {
    pattern.value = measured(pattern.value, Boolean(value), props.position)
    return
  }
  pattern.value = { ...pattern.value, [part]: value } as Pattern
}
function setSequence(length: number, advance: number) {
  set('sequence', { length, advance: Math.max(1, advance) })
}
function textOf(field: Field & { as: 'text' }): string {
  return field.write(parts.value[field.part] as never)
}
</script>

<template>
  <fieldset>
    <legend class="visually-hidden">Pattern</legend>
    <CombinationsField
      v-if="slurred"
      :model-value="slurred"
      :sets="bench.combinationSets"
      @update:model-value="(p) => (pattern = p)"
    />
    <OrdersField
      v-if="ordered"
      :model-value="ordered.orders"
      :all="bench.fingerOrders"
      @update:model-value="(list) => set('orders', list)"
    />
    <template v-for="f in own" :key="pattern.kind + f.part">
      <NumberLine
        v-if="f.as === 'number'"
        :model-value="parts[f.part]!"
        :name="f.name"
        :label="byFret ? (f.atFret ?? f.label) : f.label"
        :min="f.min"
        :max="f.max"
        @update:model-value="(v) => set(f.part, v)"
      />
      <ListLine
        v-else-if="f.as === 'text'"
        :name="f.name"
        :hint="byFret ? (f.atFrets ?? f.hint) : f.hint"
        :text="textOf(f)"
        :unread="(text) => f.read(text).rest"
        @typed="(text) => set(f.part, f.read(text).value)"
      />
      <ChoiceLine
        v-else-if="f.as === 'choice'"
        :data-test="f.part"
        :model-value="parts[f.part]!"
        :name="f.name"
        :options="f.options"
        :stacked="f.stacked"
        @update:model-value="(v) => set(f.part, v)"
      />
      <SwitchLine
        v-else
        :model-value="Boolean(parts[f.part])"
        :name="f.name"
        @update:model-value="(v) => set(f.part, v)"
      />
    </template>
    <template v-if="sequence">
      <NumberLine
        :model-value="sequence.length"
        name="Groups of notes"
        label="In groups of (0 whole)"
        :min="0"
        :max="12"
        @update:model-value="(length) => setSequence(length, sequence!.advance)"
      />
      <NumberLine
        v-if="sequence.length > 0"
        :model-value="sequence.advance"
        name="Groups start apart by"
        :min="1"
        :max="12"
        @update:model-value="(advance) => setSequence(sequence!.length, advance)"
      />
    </template>
    <slot />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
