<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import type { MeasuredTake, Take } from '../../api/client'
import AdvicePanel from '../../components/AdvicePanel.vue'
import CapoPress from '../../components/CapoPress.vue'
import OtherDrill from '../../components/OtherDrill.vue'
import StepWord from '../../components/StepWord.vue'
import TimeLine from '../../components/TimeLine.vue'

/** A take is judged here until the studio has it: then there is a page of it. */
const props = defineProps<{ take: MeasuredTake; here?: boolean }>()

const emit = defineEmits<{ corrected: [take: Take] }>()
const router = useRouter()
const a = computed(() => props.take.analysis)
const gate = computed(() => props.take.summary.measured.decision.gate)
</script>

<template>
  <section
    data-test="verdict"
    :data-of="a.foreign ? 'foreign' : take.summary.measured.decision.step"
    class="verdict"
    aria-live="polite"
  >
    <div class="row top">
      <StepWord :decision="take.summary.measured.decision" large />
      <p class="reason">{{ take.summary.measured.decision.reason }}</p>
    </div>
    <p v-if="take.parts" class="reason">{{ take.parts.text }}</p>
    <AdvicePanel :take="take" brief :here="here" />
    <OtherDrill v-if="!here" :take="take" />
    <CapoPress v-if="!here" :take="take" @corrected="(now) => emit('corrected', now)" />
    <dl v-if="!a.foreign">
      <div>
        <dt>Right notes</dt>
        <dd data-test="right-notes">
          <b class="figures">{{ a.counts.played }}</b> of {{ a.counts.expected
          }}<template v-if="a.counts.extra">, {{ a.counts.extra }} extra</template>
        </dd>
      </div>
      <div>
        <dt>Timing spread</dt>
        <dd>
          <b class="figures">{{ a.timing.spreadMs.toFixed(1) }}</b> ms,
          {{ a.timing.spreadPercent.toFixed(1) }} %, the gate allows {{ gate.spreadPercent }} %
        </dd>
      </div>
      <div>
        <dt>Level spread</dt>
        <dd>
          <b class="figures">{{ a.level.spreadDb.toFixed(1) }}</b> dB
        </dd>
      </div>
      <div>
        <dt>Speed</dt>
        <dd>
          <b class="figures">{{ a.tempo.notesPerSecond.toFixed(1) }}</b> notes/s
        </dd>
      </div>
    </dl>
    <div v-if="!a.foreign" class="sheet">
      <TimeLine
        :chart="take.chart"
        :analysis="a"
        @choose="here || router.push(`/takes/${take.summary.id}`)"
      />
    </div>
    <p v-if="!here">
      <RouterLink data-test="all-figures" :to="`/takes/${take.summary.id}`">{{
        a.foreign ? 'Listen to it' : 'All figures, and listen to it'
      }}</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s4);
  min-width: 0;
}
.top {
  gap: var(--s2) var(--s5);
}
.reason {
  font-size: clamp(18px, 2vw, 24px);
  flex: 1 1 360px;
}
dl {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3) var(--s6);
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: var(--t-lead);
}
dd b {
  font-size: calc(38px * var(--scale, 1));
  line-height: 1.1;
}
</style>
