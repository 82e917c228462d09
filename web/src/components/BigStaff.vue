<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Chart } from '../api/client'
import { barsPerRow, roomOf, rowsOf } from '../draw/staff'
import { rowsShown } from '../draw/turning'
import StaffView from './StaffView.vue'

/**
 * Staff notation to be read from a metre and a half: the row being played and the next,
 * which turn without moving. The present note is shown on them.
 */
const props = defineProps<{
  chart: Chart
  /** The chart note that sounds now, and its pass, from 0. */
  now?: number
  pass?: number
}>()

/** What a note with its accidental needs. */
const room = 36
const box = ref<HTMLElement>()
const { width, height } = useElementSize(box)
/** The staff is 18 mm high on a screen as wide as a 14-inch one; on paper it is 40 units. */
const zoom = computed(() => {
  const bar = props.chart.notesPerBeat * (props.chart.beatsPerBar ?? 4) * room + 100
  return Math.min(3, width.value / Math.max(690, bar))
})
/** What a row needs, from ledger lines above to those below. */
const rowHeight = computed(() => {
  const { above, below } = roomOf(props.chart)
  return above + 40 + below
})
const rows = computed(() =>
  width.value
    ? rowsOf(props.chart, barsPerRow(props.chart, width.value / zoom.value - 64, room))
    : [],
)
const places = computed(() =>
  Math.max(1, Math.floor(height.value / (rowHeight.value * zoom.value))),
)
const playing = computed(() => {
  const now = props.now
  return now === undefined ? -1 : rows.value.findIndex((r) => now < r.from + r.chart.notes.length)
})
const shown = computed(() => {
  const count = rows.value.length
  if (!count) return []
  const pass = props.pass ?? 0
  const row = Math.max(0, playing.value)
  const { from = 0, chart } = rows.value[row] ?? {}
  const share = props.now === undefined ? 1 : (props.now - from) / (chart?.notes.length ?? 1)
  const passes = Math.max(props.chart.passes ?? 1, pass + 1)
  const at = pass * count + row
  return rowsShown(count, places.value, at, share, passes).map((q) => {
    const r = q === undefined ? undefined : rows.value[q % count]
    return r && { ...r, playing: q === at && playing.value >= 0, last: q! % count === count - 1 }
  })
})
</script>

<template>
  <div ref="box" class="big">
    <div v-for="(r, place) in shown" :key="place" class="place" :class="{ played: r?.playing }">
      <StaffView
        v-if="r"
        :chart="r.chart"
        :now="r.playing && now !== undefined ? now - r.from : undefined"
        :zoom="zoom"
        :row="{ first: r.from === 0, last: r.last }"
      />
    </div>
  </div>
</template>

<style scoped>
.big {
  height: 100%;
  min-height: 0;
  display: grid;
  align-content: center;
  overflow: hidden;
}
.place:not(.played) {
  opacity: 0.62;
}
.place:only-child {
  opacity: 1;
}
</style>
