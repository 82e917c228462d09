<script setup lang="ts">
import { computed } from 'vue'

import type { DeviceVerdict } from '../../audio/ear'
import CueList from '../../components/CueList.vue'
import StepWord from '../../components/StepWord.vue'

/** What is said of the last take, to be read from a metre and a half. */
const props = defineProps<{
  verdict?: DeviceVerdict
  silent: boolean
  /** What the instructor says to the drill, which goes before what is said by rule. */
  own?: string
}>()

const first = computed(() => props.verdict?.advice.findings[0]?.text ?? props.verdict?.advice.tally)
</script>

<template>
  <section
    data-test="told"
    :data-of="
      verdict ? (verdict.analysis.foreign ? 'foreign' : 'judged') : silent ? 'silent' : 'recorded'
    "
    class="told"
    aria-live="assertive"
  >
    <template v-if="verdict">
      <StepWord :decision="verdict.measured.decision" large />
      <p class="first">{{ first }}</p>
      <p v-if="verdict.parts" class="why">{{ verdict.parts.text }}</p>
      <p class="why">{{ verdict.measured.decision.reason }}</p>
      <CueList v-if="!verdict.analysis.foreign" :cues="own ? [own] : verdict.cues" />
    </template>
    <template v-else-if="silent">
      <p class="word">Nothing was heard</p>
      <p class="why">
        This take counts for nothing. Play closer to the microphone, or choose another input.
      </p>
    </template>
    <template v-else>
      <p class="word">Recorded</p>
      <p class="why">This device cannot judge it now; it is judged once it is handed in.</p>
    </template>
  </section>
</template>

<style scoped>
.told {
  display: grid;
  align-content: center;
  gap: clamp(10px, 2.4vh, 32px);
  font-size: clamp(20px, 2.6vw, 50px);
}
.first {
  font-size: clamp(26px, 4vw, 76px);
  line-height: 1.2;
  font-weight: 700;
  max-width: 24em;
  text-wrap: balance;
}
.word {
  font-size: clamp(34px, 5vw, 90px);
  font-weight: 700;
}
.why {
  color: var(--ink-2);
  max-width: 34em;
}
</style>
