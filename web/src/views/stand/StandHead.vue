<script setup lang="ts">
import { ElButton } from 'element-plus'
import { RouterLink } from 'vue-router'

import type { Stand } from '../../api/client'
import { count, divisionWords } from '../../draw/words'
import SaidOfIt from './SaidOfIt.vue'

/** What is to be played, how fast, and the one key; the tempo may be one of one's own. */
defineProps<{
  stand: Stand
  /** At a tempo of one's own, beside the ladder. */
  own?: number
  /** By how many bpm each pass is faster, by one's own choice too. */
  rises?: number
  /** The tempo can be changed on this device. */
  changes: boolean
  goText: string
  busy: boolean
}>()
const emit = defineEmits<{ go: []; change: [way: 1 | -1]; back: [] }>()
</script>

<template>
  <div class="head">
    <div class="title">
      <h1>{{ stand.assignment.drillName }}</h1>
      <p data-test="stand-facts" class="quiet">
        <span data-test="notes-a-pass">{{ count(stand.chart.notes.length, 'note') }} a pass</span>,
        {{ count(stand.chart.passes ?? 1, 'pass', 'passes') }}, {{ divisionWords(stand.chart) }} ·
        <RouterLink data-test="progress" :to="`/progress/${stand.assignment.id}`"
          >progress</RouterLink
        >
        ·
        <RouterLink :to="`/stand/${stand.assignment.id}/tempo`">find my tempo</RouterLink>
      </p>
      <SaidOfIt :drill-name="stand.assignment.drillName" />
      <p v-if="own !== undefined || rises" data-test="own-tempo" class="own" role="status">
        <template v-if="rises">Faster by {{ rises }} bpm with each pass</template>
        <template v-else>{{
          (own ?? 0) < stand.assignment.rung.bpm ? 'Slower' : 'Faster'
        }}</template>
        by your own choice: measured, but it does not count.
        <button type="button" class="link" @click="emit('back')">
          Back to {{ stand.assignment.rung.bpm }}
        </button>
      </p>
    </div>
    <div class="tempo">
      <button
        v-if="changes"
        type="button"
        aria-label="Slower"
        title="Slower (↓)"
        @click="emit('change', -1)"
      >
        −
      </button>
      <p class="bpm">
        <b class="figures">{{ own ?? stand.assignment.rung.bpm }}</b> bpm<template
          v-if="stand.assignment.climb.mixed"
          ><br />{{ count(stand.chart.notesPerBeat, 'note') }} a beat</template
        >
      </p>
      <button
        v-if="changes"
        type="button"
        aria-label="Faster"
        title="Faster (↑)"
        @click="emit('change', 1)"
      >
        +
      </button>
    </div>
    <div class="go">
      <el-button
        data-test="play"
        type="primary"
        class="play"
        :disabled="busy"
        @click="emit('go')"
        >{{ goText }}</el-button
      >
      <span class="small quiet">or press <kbd>space</kbd></span>
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
}
.title {
  flex: 1 1 260px;
}
h1 {
  font-size: clamp(24px, 3vw, 38px);
}
.own {
  border-left: 6px solid var(--ink);
  padding-left: var(--s2);
  margin-top: var(--s2);
}
.tempo {
  display: flex;
  align-items: center;
  gap: var(--s3);
}
.tempo button {
  width: 44px;
  height: 44px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  font-size: 24px;
  line-height: 1;
  cursor: pointer;
}
.bpm {
  font-size: var(--t-lead);
  white-space: nowrap;
}
.bpm b {
  font-size: clamp(48px, 6vw, 84px);
  line-height: 1;
}
.go {
  display: grid;
  justify-items: center;
  gap: var(--s1);
}
.play {
  height: 64px;
  padding: 0 36px;
  font-size: calc(24px * var(--scale, 1));
}
</style>
