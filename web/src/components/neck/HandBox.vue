<script setup lang="ts">
import { computed, ref } from 'vue'

import type { HandBox } from '../../draw/neck'
import { placeUnder, type NeckFrame } from './frame'

/** The hand, which is dragged along the neck and across the strings, or moved by the arrows. */
const props = defineProps<{ frame: NeckFrame; hand: HandBox }>()
const emit = defineEmits<{ move: [frets: number, thicker: number] }>()

const box = computed(() => {
  const { frame, hand } = props
  const { x, width } = frame.span(hand.low - 1, hand.high)
  const y = frame.y(hand.thin) - 14
  return { x: x + 2, y, width: Math.max(10, width - 4), height: frame.y(hand.thick) + 14 - y }
})

const dragging = ref<{ string: number; fret: number }>()
function grab(event: PointerEvent) {
  dragging.value = placeUnder(props.frame, event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!dragging.value) return
  const at = placeUnder(props.frame, event)
  const by = at.fret - dragging.value.fret
  const thicker = at.string - dragging.value.string
  if (by === 0 && thicker === 0) return
  dragging.value = at
  emit('move', by, thicker)
}
function key(event: KeyboardEvent) {
  const along = props.frame.neck.leftHanded ? -1 : 1
  const step: [number, number] | undefined = (
    {
      ArrowRight: [along, 0],
      ArrowLeft: [-along, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    } as Record<string, [number, number]>
  )[event.key]
  if (!step) return
  event.preventDefault()
  emit('move', ...step)
}
</script>

<template>
  <rect
    :class="['hand', { dragging }]"
    tabindex="0"
    role="slider"
    aria-label="The hand: arrows move it along the neck and across the strings"
    :aria-valuenow="hand.low"
    :aria-valuetext="`from fret ${hand.low}`"
    v-bind="box"
    rx="10"
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="dragging = undefined"
    @pointercancel="dragging = undefined"
    @keydown="key"
  />
</template>

<style scoped>
.hand {
  fill: var(--wood-ink);
  fill-opacity: 0.1;
  stroke: var(--wood-ink);
  stroke-opacity: 0.5;
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
  cursor: grab;
  touch-action: none;
}
.hand:hover,
.hand:focus-visible,
.hand.dragging {
  fill-opacity: 0.2;
  stroke-opacity: 1;
}
.hand.dragging {
  cursor: grabbing;
}
</style>
