<script setup lang="ts">
import { ElSegmented, ElSwitch } from 'element-plus'
import { computed } from 'vue'

import type { Drill } from '../../api/client'
import NumberLine from './NumberLine.vue'

const drill = defineModel<Drill>({ required: true })
const props = defineProps<{ faults: Record<string, string>; strings: number }>()

const directions = [
  { label: 'thick to thin', value: 'up' },
  { label: 'thin to thick', value: 'down' },
]
const divisions = [1, 2, 3, 4, 6, 8].map((n) => ({ label: String(n), value: n }))
const all = computed(() => Array.from({ length: props.strings }, (_, i) => props.strings - i))

const direction = computed({
  get: () => {
    const [first, second] = drill.value.strings
    return first !== undefined && second !== undefined && first < second ? 'down' : 'up'
  },
  set: (d) => choose(drill.value.strings, d),
})

function choose(strings: number[], d: string) {
  const sorted = [...strings].sort((a, b) => (d === 'down' ? a - b : b - a))
  drill.value = { ...drill.value, strings: sorted }
}
function toggle(s: number) {
  const had = drill.value.strings
  choose(had.includes(s) ? had.filter((t) => t !== s) : [...had, s], direction.value)
}
function set<K extends keyof Drill>(key: K, value: Drill[K]) {
  drill.value = { ...drill.value, [key]: value }
}
</script>

<template>
  <fieldset>
    <legend>Place and path</legend>
    <NumberLine
      :model-value="drill.position"
      name="Position"
      label="Position (fret of finger 1)"
      :min="1"
      :max="24"
      :fault="faults.position"
      @update:model-value="(v) => set('position', v)"
    />
    <div class="line">
      <span>Strings</span>
      <span class="row chips">
        <button
          v-for="s in all"
          :key="s"
          type="button"
          class="chip figures"
          :aria-pressed="drill.strings.includes(s)"
          :aria-label="`String ${s}`"
          @click="toggle(s)"
        >
          {{ s }}
        </button>
      </span>
    </div>
    <p v-if="faults.strings" class="fault" role="alert">{{ faults.strings }}</p>
    <el-segmented v-model="direction" :options="directions" block aria-label="Direction" />
    <label class="line">
      <span>There and back</span>
      <el-switch
        :model-value="drill.thereAndBack"
        aria-label="There and back"
        @update:model-value="(v) => set('thereAndBack', Boolean(v))"
      />
    </label>
    <NumberLine
      :model-value="drill.repeats"
      name="Times on each string"
      :min="1"
      :max="16"
      :fault="faults.repeats"
      @update:model-value="(v) => set('repeats', v)"
    />
  </fieldset>
  <fieldset>
    <legend>Rhythm</legend>
    <div class="line">
      <span>Notes per beat</span>
      <el-segmented
        :model-value="drill.notesPerBeat"
        :options="divisions"
        aria-label="Notes per beat"
        @update:model-value="(v: unknown) => set('notesPerBeat', Number(v))"
      />
    </div>
    <p v-if="faults.notesPerBeat" class="fault" role="alert">{{ faults.notesPerBeat }}</p>
    <NumberLine
      :model-value="drill.passes"
      name="Passes in a take"
      :min="1"
      :max="64"
      :fault="faults.passes"
      @update:model-value="(v) => set('passes', v)"
    />
  </fieldset>
</template>

<style scoped>
@import './form.css';
.chips {
  gap: 6px;
}
</style>
