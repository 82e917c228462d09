<script setup lang="ts">
import { computed } from 'vue'

import type { Path, Pattern } from '../../api/client'
import { readLists, writeLists } from '../../bench/lists'
import ChoiceLine from './ChoiceLine.vue'
import { backs, shiftMoments, spreads, starts, turns, units, withins } from './choices'
import ListLine from './ListLine.vue'
import NumberLine from './NumberLine.vue'
import SwitchLine from './SwitchLine.vue'
import { limits } from '../../api/limits.gen'

const path = defineModel<Path>({ required: true })
const props = defineProps<{
  faults: Record<string, string>
  strings: number
  /** A key moves by degrees, a hand by frets. */
  inKey: boolean
  pattern: Pattern
}>()

const directions = [
  { label: 'thick to thin', value: 'up' },
  { label: 'thin to thick', value: 'down' },
]
const all = computed(() => Array.from({ length: props.strings }, (_, i) => props.strings - i))
const direction = computed({
  get: () => {
    const [first, second] = path.value.strings
    return first !== undefined && second !== undefined && first < second ? 'down' : 'up'
  },
  set: (d: string) => choose(path.value.strings, d),
})

const turnsRound = computed(() => {
  const { back, shift, within } = path.value
  const order = 'order' in props.pattern ? props.pattern.order : 'up'
  return (
    back !== 'none' ||
    within === 'both' ||
    (shift.by !== 0 && shift.home) ||
    !['up', 'down'].includes(order)
  )
})

function set(parts: Partial<Path>) {
  path.value = { ...path.value, ...parts }
}
function choose(strings: number[], d: string) {
  set({ strings: [...strings].sort((a, b) => (d === 'down' ? a - b : b - a)) })
}
function toggle(s: number) {
  const had = path.value.strings
  choose(had.includes(s) ? had.filter((t) => t !== s) : [...had, s], direction.value)
}
function setShift(parts: Partial<Path['shift']>) {
  const shift = { ...path.value.shift, ...parts }
  // Moving begins with one move, so that something is seen at once.
  if (shift.by !== 0 && shift.count === 0) shift.count = 1
  set({ shift })
}
</script>

<template>
  <fieldset>
    <legend class="visually-hidden">Path</legend>
    <NumberLine
      data-test="position"
      :model-value="path.position"
      name="Position"
      :label="inKey ? 'From fret' : 'Position (fret of finger 1)'"
      :min="limits.Path.position.min"
      :max="limits.Path.position.max"
      :fault="faults['path.position']"
      @update:model-value="(position) => set({ position })"
    />
    <ChoiceLine
      v-if="inKey"
      data-test="begin-at"
      :model-value="path.fromRoot ? 'root' : 'any'"
      name="Begin"
      :options="starts"
      @update:model-value="(at) => set({ fromRoot: at === 'root' || undefined })"
    />
    <div v-if="path.spread !== 'own'" class="line">
      <span>Strings</span>
      <span class="chips">
        <button
          v-for="s in all"
          :key="s"
          type="button"
          class="chip figures"
          :aria-pressed="path.strings.includes(s)"
          :aria-label="`String ${s}`"
          @click="toggle(s)"
        >
          {{ s }}
        </button>
      </span>
    </div>
    <p v-if="faults['path.strings']" class="fault" role="alert">{{ faults['path.strings'] }}</p>
    <ChoiceLine
      v-if="path.spread !== 'own' && path.strings.length > 1"
      v-model="direction"
      name="Direction"
      label="From string to string"
      :options="directions"
    />
    <ChoiceLine
      :model-value="path.within ?? ''"
      name="Within a string"
      :options="withins"
      stacked
      @update:model-value="(within) => set({ within: within || undefined })"
    />
    <ChoiceLine
      :model-value="path.back"
      name="And back"
      :options="backs"
      @update:model-value="(back) => set({ back })"
    />
    <ChoiceLine
      v-if="turnsRound"
      :model-value="path.turn ?? ''"
      name="The turning note"
      :options="turns"
      @update:model-value="(turn) => set({ turn: turn || undefined })"
    />
    <p v-if="faults['path.back']" class="fault" role="alert">{{ faults['path.back'] }}</p>
    <ChoiceLine
      :model-value="path.spread"
      name="Strings of a cell"
      :options="spreads"
      stacked
      @update:model-value="(spread) => set({ spread })"
    />
    <ListLine
      v-if="path.spread === 'own'"
      name="Groups"
      hint="of strings, in order"
      :text="writeLists(path.groups ?? [])"
      :unread="(t) => readLists(t).rest"
      @typed="(t) => set({ groups: readLists(t).value })"
    />
    <p v-if="faults['path.groups']" class="fault" role="alert">{{ faults['path.groups'] }}</p>
    <NumberLine
      :model-value="path.stay.count"
      name="Stay"
      label="Each cell is played"
      :min="limits.Stay.count.min"
      :max="limits.Stay.count.max"
      :fault="faults['path.stay']"
      @update:model-value="(count) => set({ stay: { ...path.stay, count } })"
    />
    <ChoiceLine
      :model-value="path.stay.unit"
      name="Stay counted in"
      label=""
      :options="units"
      @update:model-value="(unit) => set({ stay: { ...path.stay, unit } })"
    />
    <SwitchLine
      :model-value="path.together"
      name="All cells before the next strings"
      @update:model-value="(together) => set({ together })"
    />
    <NumberLine
      :model-value="path.shift.by"
      name="Move by"
      :label="inKey ? 'Move by degrees' : 'Move by frets'"
      :min="limits.Shift.by.min"
      :max="limits.Shift.by.max"
      :fault="faults['path.shift']"
      @update:model-value="(by) => setShift({ by })"
    />
    <template v-if="path.shift.by !== 0">
      <ChoiceLine
        :model-value="path.shift.each"
        name="Moves"
        label=""
        :options="shiftMoments"
        @update:model-value="(each) => setShift({ each })"
      />
      <NumberLine
        :model-value="path.shift.count"
        name="Number of moves"
        :min="1"
        :max="limits.Shift.count.max"
        @update:model-value="(count) => setShift({ count })"
      />
      <SwitchLine
        :model-value="path.shift.home"
        name="And home again"
        @update:model-value="(home) => setShift({ home })"
      />
      <SwitchLine
        :model-value="path.shift.slide"
        name="With a slide"
        @update:model-value="(slide) => setShift({ slide })"
      />
    </template>
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
