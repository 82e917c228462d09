<script setup lang="ts">
import { computed } from 'vue'

import type { Preview } from '../../api/client'
import NeckView from '../../components/NeckView.vue'
import TabView from '../../components/TabView.vue'
import { count } from '../../draw/words'

const props = defineProps<{ preview: Preview }>()

const first = computed(() => props.preview.steps?.[0])
const last = computed(() => props.preview.steps?.at(-1))
const cycle = computed(() => {
  const c = props.preview.cycle
  if (!c) return ''
  if (c.add === 0) return 'Every pass starts on a click.'
  return (
    `A pass starts on a click again after ${count(c.passes, 'pass', 'passes')}, ${c.closesAfter} notes. ` +
    `${count(c.add, 'note')} more, or ${count(c.drop, 'note')} fewer, would close each pass.`
  )
})
</script>

<template>
  <div v-if="preview.chart && preview.neck" class="stack">
    <section class="sheet">
      <NeckView :neck="preview.neck" :chart="preview.chart" />
      <p class="small quiet">
        The hand reaches {{ preview.neck.reachMm.toFixed(0) }} mm on a {{ preview.neck.scaleMm }} mm
        scale. Numbers are fingers; arcs above a string are hammer-ons, below it pull-offs.
      </p>
    </section>
    <section class="sheet facts">
      <div>
        <b class="figures">{{ preview.chart.notes.length }}</b> notes a pass
      </div>
      <div v-if="first">
        <b class="figures">{{ first.secondsPerPass.toFixed(1) }}</b> s a pass at {{ first.bpm }} bpm
      </div>
      <div v-if="first && last">
        <b class="figures">{{ first.notesPerSecond.toFixed(1) }}</b> to
        <b class="figures">{{ last.notesPerSecond.toFixed(1) }}</b> notes per second
      </div>
      <div v-if="preview.steps?.length">
        <b class="figures">{{ preview.steps.length }}</b>
        {{ preview.steps.length === 1 ? 'tempo' : 'tempi' }} on the ladder
      </div>
      <p class="small quiet">{{ cycle }}</p>
    </section>
    <section class="sheet">
      <TabView :chart="preview.chart" />
      <p class="small quiet">
        Above the strings: <b>∏</b> down stroke, <b>V</b> up stroke, <b>H</b> hammer-on,
        <b>P</b> pull-off. Below: fingers.
      </p>
    </section>
    <section
      v-if="preview.steps?.length"
      class="sheet scroll-x"
      tabindex="0"
      aria-label="Tempo ladder"
    >
      <table class="plain">
        <thead>
          <tr>
            <th class="number">Tempo</th>
            <th v-for="s in preview.steps" :key="s.bpm" class="number figures">{{ s.bpm }}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td class="number">notes per second</td>
            <td v-for="s in preview.steps" :key="s.bpm" class="number figures">
              {{ s.notesPerSecond.toFixed(1) }}
            </td>
          </tr>
          <tr>
            <td class="number">seconds per pass</td>
            <td v-for="s in preview.steps" :key="s.bpm" class="number figures">
              {{ s.secondsPerPass.toFixed(1) }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
  <div v-else class="sheet stack">
    <h2>This cannot be played yet</h2>
    <ul>
      <li v-for="f in preview.faults" :key="f.field">{{ f.text }}</li>
    </ul>
  </div>
</template>

<style scoped>
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s5);
  align-items: baseline;
}
.facts b {
  font-size: var(--t-head);
}
.facts p {
  flex-basis: 100%;
}
.plain th,
.plain td {
  padding: var(--s1) var(--s2);
}
section > p {
  margin-top: var(--s2);
}
</style>
