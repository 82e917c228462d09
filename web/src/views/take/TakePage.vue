<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import { answer, client, problemOf, type Problem, type Take } from '../../api/client'
import ProblemNote from '../../components/ProblemNote.vue'
import SoundBar from '../../components/SoundBar.vue'
import StepWord from '../../components/StepWord.vue'
import TakeFigures from '../../components/TakeFigures.vue'
import TimeLine from '../../components/TimeLine.vue'
import TransitionTable from '../../components/TransitionTable.vue'
import { weakestWords } from '../../components/weakest'
import { momentOf, sourceNames } from '../../draw/words'

const id = String(useRoute().params.id)
const take = ref<Take>()
const problem = ref<Problem>()
const sound = ref<InstanceType<typeof SoundBar>>()
const at = ref<number>()

onMounted(async () => {
  try {
    take.value = await answer(client.GET('/takes/{takeId}', { params: { path: { takeId: id } } }))
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
})

const weakest = computed(() => (take.value ? weakestWords(take.value.analysis) : ''))
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="take">
      <div class="row head">
        <div class="title">
          <h1>{{ take.summary.drillName }}</h1>
          <p class="quiet">
            {{ take.summary.student.name }}, {{ momentOf(take.summary.recordedAt) }}, at
            {{ take.summary.bpm }} bpm, {{ sourceNames[take.summary.source]
            }}{{ take.summary.demo ? ', demo' : '' }}.
            <RouterLink :to="`/progress/${take.summary.assignmentId}`"
              >All takes of this drill</RouterLink
            >
          </p>
        </div>
        <SoundBar ref="sound" v-model:at="at" :src="`/api/takes/${id}/sound`" />
      </div>
      <section class="sheet verdict">
        <StepWord :decision="take.summary.decision" large />
        <div>
          <p>{{ take.summary.decision.reason }}</p>
          <p v-if="take.analysis.foreign">
            Hardly a note matches. Was another drill played, or is the guitar tuned differently?
          </p>
          <p v-else-if="weakest">{{ weakest }}</p>
        </div>
      </section>
      <TakeFigures :take="take" />
      <section class="sheet stack">
        <div>
          <h2>Every note</h2>
          <p class="small quiet">
            Where each note came, above the line early, below it late; under it how loud. Press a
            note to hear it.
          </p>
        </div>
        <TimeLine
          :chart="take.chart"
          :analysis="take.analysis"
          :at="at"
          @hear="(t) => sound?.playFrom(t - 0.05)"
        />
      </section>
      <section v-if="take.analysis.transitions.length" class="sheet stack">
        <div>
          <h2>From finger to finger, weakest first</h2>
          <p class="small quiet">
            Early or late: by how much the step to the second finger is shorter or longer than its
            share. Level: the second note against the first.
          </p>
        </div>
        <TransitionTable :analysis="take.analysis" />
      </section>
    </template>
  </div>
</template>

<style scoped>
.title {
  flex: 1 1 320px;
}
.verdict {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
  font-size: var(--t-lead);
}
.verdict > div {
  flex: 1 1 320px;
}
</style>
