<script setup lang="ts">
import { onKeyStroke, useStorage } from '@vueuse/core'
import { ElButton, ElInputNumber, ElSlider } from 'element-plus'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'

import { EndlessClick, type ClickVoice } from '../../audio/metronome'
import { plainPulse, type Pulse } from '../../audio/pulse'
import SwitchLine from '../bench/SwitchLine.vue'
import BeatLights from '../stand/BeatLights.vue'
import ClickSounds from '../stand/ClickSounds.vue'
import { voice, volume } from '../stand/choices'
import { risen, tappedBpm, type Rise } from './rise'
import { limits } from '../../api/limits.gen'

/** A metronome for everything else. */
const pulse = useStorage<Pulse>('manudrill pulse', { ...plainPulse }, undefined, {
  mergeDefaults: true,
})
const rise = useStorage<Rise>('manudrill rise', { on: false, to: 120, bars: 32 }, undefined, {
  mergeDefaults: true,
})
const running = ref(false)
const beat = ref<number>()
const sounding = ref<number>()
const clicking = shallowRef<EndlessClick>()
let context: AudioContext | undefined
let frame = 0

const sound = (): ClickVoice => ({ ...voice.value, volume: volume.value / 100 })
async function go() {
  if (running.value) return stop()
  context ??= new AudioContext({ latencyHint: 'interactive' })
  await context.resume()
  clicking.value = new EndlessClick(context, { ...pulse.value }, sound(), (click, p) =>
    risen(p, rise.value, click),
  )
  clicking.value.start()
  running.value = true
  follow()
}
function stop() {
  clicking.value?.stop()
  clicking.value = undefined
  running.value = false
  beat.value = sounding.value = undefined
  cancelAnimationFrame(frame)
}
function follow() {
  const at = context && clicking.value?.at(context.currentTime - (context.outputLatency || 0))
  beat.value = at?.beat
  sounding.value = at && Math.round(at.bpm)
  frame = requestAnimationFrame(follow)
}
watch([pulse, rise, voice, volume], () => clicking.value?.change({ ...pulse.value }, sound()), {
  deep: true,
})
onBeforeUnmount(() => {
  stop()
  void context?.close()
})

const set = (change: Partial<Pulse>) => (pulse.value = { ...pulse.value, ...change })
const setBpm = (bpm: number) =>
  set({ bpm: Math.min(limits.Rung.bpm.max, Math.max(limits.Rung.bpm.min, Math.round(bpm))) })
function accent(at: number) {
  const { accents } = pulse.value
  set({ accents: accents.includes(at) ? accents.filter((a) => a !== at) : [...accents, at] })
}
let taps: number[] = []
function tap() {
  taps = [...taps.slice(-5), performance.now() / 1000]
  const bpm = tappedBpm(taps)
  if (bpm) setBpm(bpm)
}
onKeyStroke([' ', 'ArrowUp', 'ArrowDown', 't'], (event) => {
  const on = event.target as HTMLElement
  if (on.closest('input, button, a, [role="slider"], [role="switch"]')) return
  event.preventDefault()
  if (event.key === ' ') void go()
  else if (event.key === 't') tap()
  else setBpm(pulse.value.bpm + (event.key === 'ArrowUp' ? 1 : -1))
})
const silent = computed(() => pulse.value.off > 0)
</script>

<template>
  <div class="stack">
    <h1>Metronome</h1>
    <section class="sheet pulse">
      <p class="bpm">
        <b class="figures">{{ sounding ?? pulse.bpm }}</b> bpm
      </p>
      <BeatLights :beats="pulse.beatsPerBar" :beat="beat" />
      <div class="row">
        <el-button type="primary" class="go" @click="go"
          >{{ running ? 'Stop' : 'Start' }} <kbd>space</kbd></el-button
        >
        <el-button @click="tap">Tap the tempo <kbd>t</kbd></el-button>
      </div>
      <el-slider
        class="slider"
        :model-value="pulse.bpm"
        :min="limits.Rung.bpm.min"
        :max="limits.Rung.bpm.max"
        aria-label="Tempo in bpm"
        @update:model-value="(v) => setBpm(Number(v))"
      />
    </section>
    <div class="side-by-side">
      <section class="sheet stack">
        <h2>Beat</h2>
        <label class="line"
          ><span>Beats a bar</span>
          <el-input-number
            :model-value="pulse.beatsPerBar"
            :min="1"
            :max="16"
            aria-label="Beats a bar"
            @update:model-value="(v) => v && set({ beatsPerBar: v })"
        /></label>
        <div class="line" role="group" aria-label="Stressed beats">
          <span>Stressed</span>
          <span class="accents">
            <button
              v-for="b in pulse.beatsPerBar"
              :key="b"
              type="button"
              :aria-pressed="pulse.accents.includes(b - 1)"
              @click="accent(b - 1)"
            >
              {{ b }}
            </button>
          </span>
        </div>
        <label class="line"
          ><span>Clicks a beat</span>
          <el-input-number
            :model-value="pulse.clicks"
            :min="1"
            :max="8"
            aria-label="Clicks a beat"
            @update:model-value="(v) => v && set({ clicks: v })"
        /></label>
        <SwitchLine
          :model-value="silent"
          name="Leave bars out, to try the inner clock"
          @update:model-value="(on) => set(on ? { on: 1, off: 1 } : { on: 1, off: 0 })"
        />
        <p v-if="silent" class="row">
          <el-input-number
            :model-value="pulse.on"
            :min="1"
            :max="16"
            aria-label="Bars heard"
            @update:model-value="(v) => v && set({ on: v })"
          />
          heard, then
          <el-input-number
            :model-value="pulse.off"
            :min="1"
            :max="16"
            aria-label="Bars not heard"
            @update:model-value="(v) => v && set({ off: v })"
          />
          not
        </p>
      </section>
      <section class="sheet stack">
        <h2>Rise</h2>
        <SwitchLine v-model="rise.on" name="Rise while it runs" />
        <template v-if="rise.on">
          <label class="line"
            ><span>To, bpm</span>
            <el-input-number
              v-model="rise.to"
              :min="limits.Rung.bpm.min"
              :max="limits.Rung.bpm.max"
              aria-label="Rise to, bpm"
          /></label>
          <label class="line"
            ><span>Over so many bars</span>
            <el-input-number v-model="rise.bars" :min="1" :max="500" aria-label="Over so many bars"
          /></label>
        </template>
        <h2>Sound</h2>
        <ClickSounds />
      </section>
    </div>
  </div>
</template>

<style scoped>
.pulse {
  display: grid;
  justify-items: center;
  gap: var(--s4);
}
.bpm b {
  font-size: clamp(64px, 10vw, 140px);
  line-height: 1;
}
.slider {
  width: min(720px, 92%);
}
.go {
  height: 60px;
  padding: 0 28px;
  font-size: var(--t-lead);
}
.line {
  display: grid;
  grid-template-columns: 11em minmax(0, 1fr);
  align-items: center;
  gap: var(--s3);
}
.accents {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.accents button {
  min-width: 38px;
  min-height: 38px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.accents button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
</style>
