<script setup lang="ts">
import { computed } from 'vue'

import type { MeasuredTake } from '../api/client'
import { count } from '../draw/words'
import FigureTile from './FigureTile.vue'

const props = defineProps<{ take: MeasuredTake }>()

const a = computed(() => props.take.analysis)
const gate = computed(() => props.take.summary.measured.decision.gate)
const mistakes = computed(() => {
  const { missed, wrong, extra } = a.value.counts
  const parts = [
    missed && `${missed} missed`,
    wrong && `${wrong} wrong`,
    extra && `${extra} extra`,
  ].filter(Boolean)
  return parts.join(', ') || 'none missed, wrong or extra'
})
const heldBy = computed(() => {
  const difference = a.value.tempo.bpm - a.value.tempo.askedBpm
  return Math.abs(difference) < 0.5 ? 'as asked' : `asked for ${a.value.tempo.askedBpm}`
})
</script>

<template>
  <div class="figures-row">
    <FigureTile
      name="Right notes"
      :value="`${a.counts.played}/${a.counts.expected}`"
      :also="mistakes"
    >
      The notes that came at their pitch, of all that the drill asks for. Extra notes are touched
      strings or repeats. Aim for all of them; if fewer than nine in ten are right, play slower.
    </FigureTile>
    <FigureTile
      name="Timing spread"
      :value="a.timing.spreadMs.toFixed(1)"
      unit="ms"
      :also="`${a.timing.spreadPercent.toFixed(1)} % of the interval, the gate allows ${gate.spreadPercent} %; the ear notices ${a.timing.audibleMs.toFixed(0)} ms`"
    >
      How far the notes stray from an even line: the standard deviation of their distance from the
      straight line of onset on beat that fits the take best. Below what the ear notices it is even.
      To get it down: slower, and the weakest transition alone.
    </FigureTile>
    <FigureTile
      name="Level spread"
      :value="a.level.spreadDb.toFixed(1)"
      unit="dB"
      :also="`the ear notices a step of ${a.level.audibleDb} dB`"
    >
      How much the loudness of the notes differs: the standard deviation of the level of their first
      tenth of a second. Slurred notes are softer than picked ones; firm fingers bring them closer.
    </FigureTile>
    <FigureTile name="Tempo held" :value="a.tempo.bpm.toFixed(1)" unit="bpm" :also="heldBy">
      The tempo of the line through all right notes. More than 4 % away from the click, the ladder
      does not move.
    </FigureTile>
    <FigureTile
      name="Speed"
      :value="a.tempo.notesPerSecond.toFixed(1)"
      unit="notes/s"
      :also="count(take.chart.notesPerBeat, 'note') + ' a beat'"
    >
      Tempo held × notes per beat / 60. It only counts at a tempo that was passed evenly.
    </FigureTile>
  </div>
</template>
