<script setup lang="ts">
import { computed } from 'vue'

import type { Drill, DrillPart } from '../../api/client'
import { partsOf, withParts } from '../../bench/parts'
import { limits } from '../../api/limits.gen'

/** The parts of a drill, played one after the other without a stop; one is being set. */
const drill = defineModel<Drill>({ required: true })
const chosen = defineModel<number>('chosen', { required: true })
defineProps<{ faults: Record<string, string> }>()

/** The most parts that a drill has. */
const most = limits.Drill.then.maxItems
const parts = computed(() => partsOf(drill.value))
const several = computed(() => parts.value.length > 1)
const lengths = { once: 'once', times: 'times', beats: 'beats', seconds: 's' } as const
type Unit = keyof typeof lengths

function change(to: DrillPart[], at: number) {
  drill.value = withParts(drill.value, to)
  chosen.value = Math.max(0, Math.min(at, to.length - 1))
}
function set(i: number, setting: Partial<DrillPart>) {
  change(
    parts.value.map((p, n) => (n === i ? { ...p, ...setting } : p)),
    chosen.value,
  )
}
function add() {
  const part = JSON.parse(JSON.stringify(parts.value[chosen.value])) as DrillPart
  delete part.title
  change(parts.value.toSpliced(chosen.value + 1, 0, part), chosen.value + 1)
}
const remove = (i: number) =>
  change(parts.value.toSpliced(i, 1), i < chosen.value ? chosen.value - 1 : chosen.value)
function move(i: number, by: 1 | -1) {
  const [moved] = parts.value.slice(i, i + 1)
  if (moved) change(parts.value.toSpliced(i, 1).toSpliced(i + by, 0, moved), i + by)
}
function setUnit(i: number, unit: Unit) {
  const usual = { times: 2, beats: 16, seconds: 15 }
  set(i, { for: unit === 'once' ? undefined : { unit, count: usual[unit] } })
}
function setCount(i: number, { target }: Event) {
  const length = parts.value[i]?.for
  const count = Math.round(Number((target as HTMLInputElement).value))
  if (length && count >= 1)
    set(i, { for: { ...length, count: Math.min(count, limits.Stay.count.max) } })
}
</script>

<template>
  <fieldset>
    <legend>
      Parts <span class="small quiet">{{ several ? 'without a stop' : '' }}</span>
    </legend>
    <ol v-if="several">
      <li v-for="(p, i) in parts" :key="i" :class="{ chosen: i === chosen }">
        <button
          type="button"
          class="chip figures"
          :aria-pressed="i === chosen"
          :aria-label="`Set part ${i + 1}`"
          @click="chosen = i"
        >
          {{ i + 1 }}
        </button>
        <input
          class="text title"
          :value="p.title ?? ''"
          :placeholder="`Part ${i + 1}`"
          :maxlength="limits.DrillPart.title.maxLength"
          :aria-label="`Name of part ${i + 1}`"
          @focus="chosen = i"
          @change="set(i, { title: ($event.target as HTMLInputElement).value || undefined })"
        />
        <input
          v-if="p.for"
          class="text figures count"
          inputmode="numeric"
          :value="p.for.count"
          :aria-label="`How long part ${i + 1} is`"
          @focus="chosen = i"
          @change="setCount(i, $event)"
        />
        <select
          class="text unit"
          :value="p.for?.unit ?? 'once'"
          :aria-label="`How part ${i + 1} is counted`"
          @change="setUnit(i, ($event.target as HTMLSelectElement).value as Unit)"
        >
          <option v-for="(name, unit) in lengths" :key="unit" :value="unit">{{ name }}</option>
        </select>
        <button
          type="button"
          class="chip"
          :disabled="i === 0"
          :aria-label="`Move part ${i + 1} up`"
          @click="move(i, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="chip"
          :aria-label="`Leave part ${i + 1} out`"
          @click="remove(i)"
        >
          ✕
        </button>
      </li>
    </ol>
    <p v-if="faults.then ?? faults.for ?? faults.title" class="fault" role="alert">
      {{ faults.then ?? faults.for ?? faults.title }}
    </p>
    <div class="line">
      <button type="button" class="link" :disabled="parts.length >= most" @click="add">
        Add a part that follows without a stop
      </button>
    </div>
    <p v-if="several" class="small quiet">
      Below is set what is part {{ chosen + 1 }}; the rhythm is that of all. Each part begins on the
      beat.
    </p>
  </fieldset>
</template>

<style scoped>
@import './form.css';
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  max-height: 260px;
  overflow-y: auto;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 2px;
  border-radius: var(--round);
}
li.chosen {
  background: var(--line);
}
.title {
  flex: 1 1 60px;
  width: 60px;
  min-width: 0;
}
.count {
  width: 46px;
}
.unit {
  width: 88px;
}
.chip:disabled {
  opacity: 0.4;
  cursor: default;
}
</style>
