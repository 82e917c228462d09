<script setup lang="ts">
import { computed, ref } from 'vue'

defineProps<{ src: string }>()
/** The moment that is heard now, s. */
const at = defineModel<number>('at')

const audio = ref<HTMLAudioElement>()
const playing = ref(false)
const seconds = ref(0)
const failed = ref(false)
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
  at.value = audio.value.currentTime
  if (!audio.value.paused) requestAnimationFrame(follow)
}
function playFrom(t: number) {
  if (!audio.value) return
  audio.value.currentTime = Math.max(0, t)
  void audio.value.play()
}
defineExpose({ playFrom })
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
      <button type="button" :aria-label="playing ? 'Pause' : 'Listen'" @click="toggle">
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
        aria-label="Place in the recording"
        @input="seek"
      />
      <span class="figures small">{{ text }}</span>
    </template>
  </div>
</template>

<style scoped>
.sound {
  display: flex;
  align-items: center;
  gap: var(--s3);
  flex: 0 1 360px;
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
