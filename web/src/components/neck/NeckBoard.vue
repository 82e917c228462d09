<script setup lang="ts">
import { computed } from 'vue'

import { doubleInlays, inlays } from '../../draw/neck'
import { noteName } from '../../draw/words'
import { naming } from '../../preferences'
import type { NeckFrame } from './frame'

/** The neck itself: wood, frets and strings, and which of these sounds or is damped. */
const props = defineProps<{
  frame: NeckFrame
  tuning: number[]
  sounds?: number
  damped: number[]
}>()

const wires = computed(() => {
  const { from, to } = props.frame
  return Array.from({ length: to - from + 1 }, (_, i) => from + i)
})
const frets = computed(() => wires.value.slice(1))
</script>

<template>
  <g>
    <rect
      class="board"
      :x="frame.span(frame.from, frame.to).x"
      :y="frame.top - 18"
      :width="frame.span(frame.from, frame.to).width"
      :height="frame.bottom - frame.top + 36"
    />
    <rect
      v-if="frame.neck.topFret < frame.to"
      class="beyond"
      :x="frame.span(frame.neck.topFret, frame.to).x"
      :y="frame.top - 18"
      :width="frame.span(frame.neck.topFret, frame.to).width"
      :height="frame.bottom - frame.top + 36"
    />
    <template v-for="fret in frets" :key="fret">
      <g v-if="doubleInlays.includes(fret + frame.neck.capo)" class="inlay">
        <circle :cx="frame.middle(fret)" :cy="frame.y(2) + frame.gap / 2" r="5" />
        <circle :cx="frame.middle(fret)" :cy="frame.bottom - frame.gap * 1.5" r="5" />
      </g>
      <circle
        v-else-if="inlays.includes(fret + frame.neck.capo)"
        class="inlay"
        :cx="frame.middle(fret)"
        :cy="(frame.top + frame.bottom) / 2"
        r="5"
      />
    </template>
    <line
      v-for="w in wires"
      :key="w"
      :class="['wire', { nut: w === 0 }]"
      :x1="frame.wire(w)"
      :x2="frame.wire(w)"
      :y1="frame.top - 18"
      :y2="frame.bottom + 18"
    />
    <g v-for="s in frame.strings" :key="s">
      <line
        :class="['string', { sounds: sounds === s }]"
        :x1="frame.wire(frame.from)"
        :x2="frame.wire(frame.to)"
        :y1="frame.y(s)"
        :y2="frame.y(s)"
        :stroke-width="0.9 + s * 0.32"
      />
      <text class="name" :x="frame.x(frame.neck.leftHanded ? 14 : 4)" :y="frame.y(s) + 5">{{
        s
      }}</text>
      <text class="open" :x="frame.x(frame.neck.leftHanded ? 43 : 22)" :y="frame.y(s) + 5">
        {{ noteName(tuning[s - 1] ?? 0, naming) }}
      </text>
      <path
        v-if="damped.includes(s)"
        class="damped"
        :d="`M${frame.beside(9) - 4} ${frame.y(s) - 4}l8 8m0 -8l-8 8`"
      />
    </g>
    <text
      v-for="fret in frets"
      :key="fret"
      class="fret"
      :x="frame.middle(fret)"
      :y="frame.bottom + 36"
    >
      {{ fret }}
    </text>
  </g>
</template>

<style scoped>
.board {
  fill: var(--wood);
}
.beyond {
  fill: #000;
  opacity: 0.45;
}
.inlay {
  fill: var(--wood-ink);
  opacity: 0.22;
}
.wire {
  stroke: var(--wood-line);
  stroke-width: 2;
}
.wire.nut {
  stroke: var(--wood-ink);
  stroke-width: 7;
}
.string {
  stroke: var(--wood-line);
}
.string.sounds {
  stroke: var(--wood-ink);
}
.name {
  font-weight: 700;
  font-size: 15px;
  fill: var(--ink);
}
.open {
  font-size: 13px;
  fill: var(--ink-2);
}
.damped {
  stroke: var(--ink);
  stroke-width: 1.8;
}
.fret {
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink-2);
}
</style>
