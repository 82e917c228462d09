<script setup lang="ts">
import { computed, ref } from 'vue'

defineProps<{ src: string }>()
/** The moment that is heard now, s. */
const at = defineModel<number>('at')

const audio = ref<HTMLAudioElement>()
const playing = ref(false)
const seconds = ref(0)
const failed = ref(false)
const rate = ref(1)
const loop = ref<{ from: number; to: number }>()
const text = computed(() => `${clock(at.value ?? 0)} / ${clock(seconds.value)}`)

function clock(s: number): string {
  return `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
}
function toggle() {
  if (playing.value) audio.value?.pause()
  else void audio.value?.play()
}
function seek(event: Event) {
  if (audio.value) audio.value.currentTime = Number((event.target as HTMLInputElement).value)
}
/** Follows the sound closely: the element itself tells its time too seldom. */
function follow() {
  if (!audio.value) return
  if (loop.value && audio.value.currentTime >= loop.value.to)
    audio.value.currentTime = loop.value.from
  at.value = audio.value.currentTime
  if (!audio.value.paused) requestAnimationFrame(follow)
}
function playFrom(t: number) {
  if (!audio.value) return
  loop.value = undefined
  audio.value.currentTime = Math.max(0, t)
  void audio.value.play()
}
/** Plays a stretch over and over. */
function playLoop(from: number, to: number) {
  if (!audio.value) return
  loop.value = { from: Math.max(0, from), to }
  audio.value.currentTime = loop.value.from
  void audio.value.play()
}
/** The browser keeps the pitch where it plays slower. */
function setRate(event: Event) {
  rate.value = Number((event.target as HTMLSelectElement).value)
  if (audio.value) {
    audio.value.preservesPitch = true
    audio.value.playbackRate = rate.value
  }
}
defineExpose({ playFrom, playLoop })
</script>

<template>
  <div class="sound">
    <audio
      ref="audio"
      preload="auto"
      :src="src"
      @loadedmetadata="seconds = audio?.duration ?? 0"
      @play="((playing = true), follow())"
      @pause="playing = false"
      @seeked="follow"
      @error="failed = true"
    />
    <p v-if="failed" class="small" role="alert">The sound cannot be loaded; reload the page.</p>
    <template v-else>
      <button
        data-test="sound"
        :data-of="playing ? 'playing' : 'still'"
        type="button"
        :aria-label="playing ? 'Pause' : 'Listen'"
        @click="toggle"
      >
        <svg viewBox="0 0 24 24" aria-hidden="true">
          <path :d="playing ? 'M7 5v14M17 5v14' : 'M7 4l13 8l-13 8z'" :class="{ bars: playing }" />
        </svg>
      </button>
      <input
        type="range"
        min="0"
        :max="seconds"
        step="0.01"
        :value="at ?? 0"
        aria-label="Moment in the recording"
        @input="seek"
      />
      <span data-test="sound-at" class="figures small">{{ text }}</span>
      <select :value="rate" aria-label="How fast it is heard, at the same pitch" @change="setRate">
        <option :value="1">full speed</option>
        <option :value="0.75">¾ speed</option>
        <option :value="0.5">½ speed</option>
        <option :value="0.35">⅓ speed</option>
      </select>
      <button
        v-if="loop"
        data-test="stop-repeating"
        type="button"
        class="loop small"
        title="Play on instead"
        @click="loop = undefined"
      >
        stop repeating
      </button>
    </template>
  </div>
</template>

<style scoped>
.sound {
  display: flex;
  align-items: center;
  gap: var(--s3);
  flex: 0 1 480px;
  flex-wrap: wrap;
}
select {
  font-size: var(--t-small);
  padding: 6px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
}
button {
  flex: none;
  width: 46px;
  height: 46px;
  border-radius: 50%;
  border: 0;
  background: var(--ink);
  cursor: pointer;
  display: grid;
  place-items: center;
}
button.loop {
  width: auto;
  height: auto;
  padding: 6px 12px;
  border-radius: var(--round);
  color: var(--sheet);
}
svg {
  width: 22px;
  height: 22px;
}
path {
  fill: var(--sheet);
  stroke: var(--sheet);
  stroke-linejoin: round;
  stroke-width: 2;
}
path.bars {
  stroke-width: 5;
}
input {
  flex: 1;
  min-width: 80px;
  accent-color: var(--ink);
}
span {
  white-space: nowrap;
  color: var(--ink-2);
}
</style>
