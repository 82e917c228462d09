<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'

import type { Stand } from '../../api/client'
import CueList from '../../components/CueList.vue'
import NeckView from '../../components/NeckView.vue'
import MusicView from '../stand/MusicView.vue'
import { shown } from '../stand/choices'

/** A rest with its clock, or something to read, and what comes after it. */
defineProps<{
  seconds: number
  word: string
  text: string
  next?: string
  stand?: Stand
  /** At which it is played. */
  bpm?: number
  own?: string
}>()

/** There is room for the neck beside the tab. */
const roomy = useMediaQuery('(width >= 800px)')
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
</script>

<template>
  <section data-test="rest" class="rest">
    <div class="now">
      <p class="clock figures" role="timer">{{ clock(seconds) }}</p>
      <div>
        <p v-if="word" class="word">{{ word }}</p>
        <p v-if="text" class="text">{{ text }}</p>
        <slot />
      </div>
    </div>
    <div v-if="stand && next" class="next">
      <p class="text">
        Then <b>{{ next }}</b>, {{ bpm ?? stand.chart.bpm }} bpm
      </p>
      <CueList v-if="!text" class="cues" :cues="own ? [own] : stand.cues" />
      <div class="two">
        <NeckView
          v-if="roomy || shown === 'neck'"
          :neck="stand.neck"
          :chart="stand.chart"
          cut
          :zoom="1.5"
        />
        <div v-if="roomy || shown !== 'neck'" class="tab"><MusicView :chart="stand.chart" /></div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.rest {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: clamp(10px, 2.4vh, 32px);
  min-height: 0;
}
.now {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) clamp(16px, 3vw, 60px);
}
.now > div {
  flex: 1 1 22em;
  min-width: 0;
}
.clock {
  font-size: clamp(56px, 9vw, 170px);
  font-weight: 700;
  line-height: 1;
}
.word {
  font-size: clamp(26px, 4vw, 76px);
  font-weight: 700;
}
.text {
  font-size: clamp(20px, 2.6vw, 50px);
  max-width: 30em;
}
.next {
  display: grid;
  align-content: start;
  gap: var(--s3);
  min-height: 0;
}
.cues {
  font-size: clamp(18px, 2vw, 38px);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: var(--s4);
  align-items: center;
  min-height: 0;
}
.tab {
  height: 100%;
  min-height: clamp(220px, 30vh, 520px);
}
@media (width < 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
