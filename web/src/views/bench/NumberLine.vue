<script setup lang="ts">
import { ref } from 'vue'

/**
 * A labelled number that is dragged sideways, stepped by the arrow keys or
 * typed, with what is wrong about it. Attributes are those of its field.
 */
defineOptions({ inheritAttrs: false })
const value = defineModel<number>({ required: true })
const props = defineProps<{
  name: string
  min: number
  max: number
  step?: number
  label?: string
  unit?: string
  fault?: string
}>()

/** Pixels of a drag for one step. */
const pixels = 9
const dragging = ref(false)
let from = { x: 0, value: 0 }

function set(to: number) {
  const step = props.step ?? 1
  const stepped = Math.round(to / step) * step
  const next = Math.min(props.max, Math.max(props.min, Number(stepped.toFixed(3))))
  if (next !== value.value) value.value = next
}
function start(event: PointerEvent) {
  dragging.value = true
  from = { x: event.clientX, value: value.value }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!dragging.value) return
  set(from.value + Math.trunc((event.clientX - from.x) / pixels) * (props.step ?? 1))
}
function key(event: KeyboardEvent) {
  const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  set(value.value + by * (props.step ?? 1))
}
function typed(event: Event) {
  const input = event.target as HTMLInputElement
  const number = Number(input.value.replace(',', '.').replace('−', '-'))
  if (input.value.trim() !== '' && Number.isFinite(number)) {
    const next = Math.min(props.max, Math.max(props.min, number))
    if (next !== value.value) value.value = next
  }
  input.value = String(value.value)
}
</script>

<template>
  <div class="line">
    <span
      class="handle"
      :class="{ dragging }"
      title="Drag sideways to change it"
      @pointerdown.prevent="start"
      @pointermove="drag"
      @pointerup="dragging = false"
      @pointercancel="dragging = false"
    >
      {{ label ?? name
      }}<svg viewBox="0 0 22 8" aria-hidden="true">
        <path d="M5 1L1 4l4 3M17 1l4 3l-4 3M1 4h20" />
      </svg>
    </span>
    <span class="number">
      <button type="button" tabindex="-1" aria-hidden="true" @click="set(value - (step ?? 1))">
        −
      </button>
      <input
        :value="value"
        v-bind="$attrs"
        class="figures"
        inputmode="decimal"
        role="spinbutton"
        :aria-label="name"
        :aria-valuenow="value"
        :aria-valuemin="min"
        :aria-valuemax="max"
        @change="typed"
        @keydown="key"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <button type="button" tabindex="-1" aria-hidden="true" @click="set(value + (step ?? 1))">
        +
      </button>
    </span>
  </div>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
</template>

<style scoped>
@import './form.css';
.handle {
  flex: 1;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
.handle svg {
  width: 17px;
  height: 7px;
  margin-left: 7px;
  opacity: 0;
}
.handle path {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.line:hover .handle svg,
.dragging.handle svg {
  opacity: 1;
}
.number {
  display: flex;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  overflow: hidden;
}
.number:focus-within {
  outline: 3px solid var(--ink);
  outline-offset: 1px;
}
.number input {
  width: 46px;
  border: 0;
  outline: 0;
  padding: 3px 0;
  background: none;
  color: var(--ink);
  font-size: calc(15px * var(--scale, 1));
  font-weight: 600;
  text-align: center;
}
.number button {
  border: 0;
  width: 24px;
  padding: 0;
  background: var(--sheet-2);
  color: var(--ink-2);
  font-size: calc(16px * var(--scale, 1));
  cursor: pointer;
}
.number button:hover {
  color: var(--ink);
}
</style>
