<script setup lang="ts">
import { computed } from 'vue'

import type { Ladder, Rung } from '../../api/client'
import { ladderRules } from './choices'
import ChoiceLine from './ChoiceLine.vue'
import GateFields from './GateFields.vue'
import ListLine from './ListLine.vue'
import NumberLine from './NumberLine.vue'
import { readRungs, writeRungs } from './rungs'
import { limits } from '../../api/limits.gen'

/** How a student climbs: by which rule, and what lets them. */
const ladder = defineModel<Ladder>({ required: true })
const props = defineProps<{ faults: Record<string, string>; notesPerBeat: number }>()

type Rule = NonNullable<Ladder['rule']>
interface Field {
  key: 'startBpm' | 'stepBpm' | 'targetBpm' | 'stepPercent' | 'doublings'
  name: string
  max: number
  of: Rule[]
}
const fields: Field[] = [
  {
    key: 'startBpm',
    name: 'Start, bpm',
    max: limits.Ladder.startBpm.max,
    of: ['steps', 'percent', 'doubling', 'both'],
  },
  { key: 'stepBpm', name: 'Step, bpm', max: limits.Ladder.stepBpm.max, of: ['steps', 'both'] },
  { key: 'stepPercent', name: 'Step, %', max: limits.Ladder.stepPercent.max, of: ['percent'] },
  {
    key: 'targetBpm',
    name: 'Target, bpm',
    max: limits.Ladder.targetBpm.max,
    of: ['steps', 'percent', 'both'],
  },
  {
    key: 'doublings',
    name: 'Notes per beat doubled, times',
    max: limits.Ladder.doublings.max,
    of: ['doubling', 'both'],
  },
]
const rule = computed(() => ladder.value.rule ?? 'steps')
const gate = computed({
  get: () => ladder.value.gate,
  set: (to) => (ladder.value = { ...ladder.value, gate: to }),
})
const shown = computed(() => fields.filter((f) => f.of.includes(rule.value)))
const list = computed(() => writeRungs(ladder.value.list ?? []))

/** Chooses a rule, with what it needs where it was not set yet. */
function choose(to: Rule) {
  const l: Ladder = { ...ladder.value, rule: to }
  if (to === 'percent') l.stepPercent ??= 5
  if (to === 'doubling' || to === 'both') l.doublings ??= 1
  if (to === 'list') l.list ??= startOfList()
  ladder.value = l
}
/** A list begins as the ladder did: start, middle and target. */
function startOfList(): Rung[] {
  const { startBpm, targetBpm } = ladder.value
  const tempi = [startBpm, Math.round((startBpm + targetBpm) / 2), targetBpm]
  return [...new Set(tempi)].map((bpm) => ({ bpm, notesPerBeat: props.notesPerBeat }))
}
function setList(text: string) {
  const rungs = readRungs(text, props.notesPerBeat)
  if (rungs) ladder.value = { ...ladder.value, list: rungs }
}
function set(key: Field['key'], v: number) {
  ladder.value = { ...ladder.value, [key]: v }
}
</script>

<template>
  <fieldset>
    <legend>Tempo ladder</legend>
    <ChoiceLine
      :model-value="rule"
      name="Rungs go by"
      :options="ladderRules"
      stacked
      @update:model-value="choose"
    />
    <NumberLine
      v-for="f in shown"
      :key="f.key"
      :data-test="f.key"
      :model-value="ladder[f.key] ?? 0"
      :name="f.name"
      :min="1"
      :max="f.max"
      :fault="faults[`ladder.${f.key}`]"
      @update:model-value="(v) => set(f.key, v)"
    />
    <ListLine
      v-if="rule === 'list'"
      name="Rungs"
      hint="60 64 70, or 60x3 60x6 with the notes per beat"
      :text="list"
      :fault="faults['ladder.list']"
      @typed="setList"
    />
  </fieldset>
  <fieldset>
    <legend>Gate: what lets the student climb</legend>
    <GateFields v-model="gate" :faults="faults" />
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
