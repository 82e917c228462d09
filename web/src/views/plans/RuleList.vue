<script setup lang="ts">
import type { PlanRule, PlanSettings } from '../../api/client'

/** The rules by which a plan is made: each with its reason, each to be set or left out. */
const settings = defineModel<PlanSettings>({ required: true })
defineProps<{ rules: PlanRule[] }>()

const isOn = (r: PlanRule) => !settings.value.rules?.[r.id]?.off
const valueOf = (r: PlanRule) => settings.value.rules?.[r.id]?.value ?? r.value
function set(r: PlanRule, to: { off?: boolean; value?: number }) {
  const was = settings.value.rules?.[r.id] ?? { value: r.value }
  const rules = { ...settings.value.rules, [r.id]: { ...was, ...to } }
  if (!rules[r.id]!.off && rules[r.id]!.value === r.value) delete rules[r.id]
  settings.value = { ...settings.value, rules }
}
function typed(r: PlanRule, event: Event) {
  const input = event.target as HTMLInputElement
  const value = Number(input.value.replace(',', '.'))
  if (input.value.trim() && Number.isFinite(value))
    set(r, { value: Math.min(r.max, Math.max(r.min, value)) })
  input.value = String(valueOf(r))
}
</script>

<template>
  <ul>
    <li v-for="r in rules" :key="r.id" :class="{ off: !isOn(r) }">
      <label class="name">
        <input type="checkbox" :checked="isOn(r)" @change="set(r, { off: isOn(r) })" />
        <b>{{ r.name }}</b>
      </label>
      <label v-if="r.unit" class="value small">
        <input
          class="text figures"
          :value="valueOf(r)"
          :disabled="!isOn(r)"
          inputmode="decimal"
          :aria-label="`${r.name}, ${r.unit}`"
          @change="typed(r, $event)"
        />
        {{ valueOf(r) === 1 ? r.unit.replace(/^([a-z]+)s\b/, '$1') : r.unit }}
      </label>
      <p class="small quiet">{{ r.reason }}</p>
    </li>
  </ul>
</template>

<style scoped>
@import '../bench/form.css';
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: var(--s3) var(--s5);
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 var(--s3);
  align-items: center;
}
li p {
  grid-column: 1 / -1;
}
.name {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
input[type='checkbox'] {
  width: 18px;
  height: 18px;
  accent-color: var(--ink);
}
.value input {
  width: 56px;
  text-align: right;
}
.off b {
  color: var(--ink-3);
}
</style>
