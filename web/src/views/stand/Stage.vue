<script setup lang="ts">
import { computed } from 'vue'

import type { Chart, Neck } from '../../api/client'
import type { Marked } from '../../audio/ear'
import type { InputLevel } from '../../audio/input'
import type { Moment } from '../../audio/schedule'
import NeckView from '../../components/NeckView.vue'
import BeatLights from './BeatLights.vue'
import InputPicture from './InputPicture.vue'
import MusicView from './MusicView.vue'
import { shown } from './choices'

/** What is seen while a take is played, from a metre and a half: no more than is needed. */
const props = defineProps<{
  title: string
  /** How far it is, in a few words. */
  left: string
  chart: Chart
  neck: Neck
  moment: Moment
  marks: Map<number, Marked>
  input?: InputLevel
  heard: number
}>()

const now = computed(() => (props.moment.countIn ? undefined : props.moment.note))
/** What the part that is played is called, where there are several. */
const part = computed(() => props.chart.parts?.[props.chart.notes[now.value ?? 0]?.part ?? 0])
/** What is wrong with the input, once there should be something to hear. */
const trouble = computed(() => {
  void props.heard
  const { pass = 0, note = 0 } = props.moment
  const word = props.input?.word
  if (word === 'clipped') return true
  return (word === 'silent' || word === 'soft') && (pass > 0 || note >= 4)
})
</script>

<template>
  <div class="stage">
    <header>
      <div class="title">
        <h1>{{ title }}</h1>
        <p data-test="left" class="left">{{ [left, part].filter(Boolean).join(' · ') }}</p>
      </div>
      <BeatLights :beats="chart.beatsPerBar ?? 4" :beat="moment.beat" :count="moment.countIn" />
      <p class="bpm">
        <b class="figures">{{ chart.bpm }}</b> bpm
      </p>
      <slot />
    </header>
    <div class="music">
      <MusicView
        v-if="shown !== 'neck'"
        class="tab"
        :chart="chart"
        :now="now"
        :pass="moment.pass"
        :marks="marks"
      />
      <div v-if="shown === 'neck' || shown === 'both'" class="neck">
        <NeckView :neck="neck" :chart="chart" :now="now" cut :zoom="shown === 'neck' ? 2.4 : 1.3" />
      </div>
    </div>
    <InputPicture v-if="input && trouble" class="trouble" :input="input" :stamp="heard" />
  </div>
</template>

<style scoped>
.stage {
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: var(--s2);
  padding: clamp(8px, 1.4vw, 24px);
  background: var(--ground);
  color: var(--ink);
}
header :deep(.el-button:not(.el-button--primary)) {
  height: auto;
  min-height: 44px;
  font-size: clamp(15px, 1.3vw, 24px);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) clamp(12px, 2.4vw, 48px);
}
.title {
  flex: 1 1 220px;
  min-width: 0;
}
h1 {
  font-size: clamp(18px, 2.2vw, 40px);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.left {
  font-size: clamp(18px, 2.4vw, 44px);
  font-variant-numeric: tabular-nums;
  color: var(--ink-2);
}
.bpm {
  font-size: clamp(16px, 1.8vw, 32px);
  white-space: nowrap;
}
.bpm b {
  font-size: clamp(34px, 5vw, 96px);
  line-height: 1;
}
.music {
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: var(--s2);
}
.tab:last-child {
  grid-row: 1 / -1;
}
.neck:first-child {
  align-self: center;
}
</style>
