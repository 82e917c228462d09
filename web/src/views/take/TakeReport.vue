<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'

import { answer, client, type MeasuredTake, type Take } from '../../api/client'
import AdvicePanel from '../../components/AdvicePanel.vue'
import CapoPress from '../../components/CapoPress.vue'
import ContrastPanel from '../../components/ContrastPanel.vue'
import HandsVideo from '../../components/HandsVideo.vue'
import GroupBars from '../../components/GroupBars.vue'
import MoreFigures from '../../components/MoreFigures.vue'
import NoteCard from '../../components/NoteCard.vue'
import NoteRows from '../../components/NoteRows.vue'
import NotSo from '../../components/NotSo.vue'
import OtherDrill from '../../components/OtherDrill.vue'
import PairMatrix from '../../components/PairMatrix.vue'
import PartsTable from '../../components/PartsTable.vue'
import SoundBar from '../../components/SoundBar.vue'
import StepWord from '../../components/StepWord.vue'
import TakeFigures from '../../components/TakeFigures.vue'
import ThirdsTable from '../../components/ThirdsTable.vue'
import TimeLine from '../../components/TimeLine.vue'
import { passRows } from '../../draw/noterows'
import { person } from '../../session'
import TakeHead from './TakeHead.vue'

/** Everything that was measured in a take. */
const props = defineProps<{ take: MeasuredTake }>()
const emit = defineEmits<{ measureAgain: []; corrected: [take: Take] }>()
const comments = ref(props.take.comments)
const video = ref(props.take.video)
const sound = ref<InstanceType<typeof SoundBar>>()
const at = ref<number>()
const chosen = ref<number | undefined>(noteAsked())

const pinned = computed(() => new Set(comments.value.map((c) => c.note)))
const passes = computed(() => props.take.analysis.notes.length / props.take.chart.notes.length)

/** The note that the address asks for: a comment on it was announced. */
function noteAsked(): number | undefined {
  const note = Number(useRoute().query.note)
  return Number.isInteger(note) && useRoute().query.note && note < props.take.analysis.notes.length
    ? note
    : undefined
}
// What the other side has pinned is read once it is on the screen.
onMounted(() => {
  const takeId = props.take.summary.id
  const theirs =
    comments.value.some((c) => !c.readAt && c.author.id !== person.value?.id) ||
    (props.take.review && person.value?.role === 'student')
  if (theirs)
    void answer(client.POST('/takes/{takeId}/read', { params: { path: { takeId } } })).catch(
      () => undefined, // it is announced once more
    )
})

/** Looks at a note and lets it be heard. */
function choose(index: number) {
  chosen.value = index
  const heard = props.take.analysis.notes[index]
  if (heard) hear((heard.t ?? heard.expectedT) - 0.05)
}
function hear(from: number) {
  sound.value?.playFrom(from)
}
</script>

<template>
  <div class="stack">
    <TakeHead :summary="take.summary">
      <template #notes>
        <p v-if="take.summary.failure" class="small quiet">
          Measured again, it could not be: {{ take.summary.failure }} What was measured before
          stays.
        </p>
        <p v-if="take.summary.newestListener" class="small quiet">
          Judged by an earlier listener.
          <button type="button" class="link" @click="emit('measureAgain')">Measure again</button>
        </p>
      </template>
      <p v-if="take.summary.soundDropped" class="quiet">
        The sound is no longer kept; what was measured stays.
      </p>
      <SoundBar v-else ref="sound" v-model:at="at" :src="`/api/takes/${take.summary.id}/sound`" />
    </TakeHead>
    <HandsVideo
      v-if="video"
      :take-id="take.summary.id"
      :video="video"
      :at="at"
      @deleted="video = undefined"
    />
    <section class="sheet verdict">
      <StepWord :decision="take.summary.measured.decision" large />
      <p class="reason">{{ take.summary.measured.decision.reason }}</p>
      <p v-if="take.review" data-test="reviewed" class="reviewed">
        <b>{{ take.review.author }}: {{ take.review.accepted ? 'accepted' : 'once more' }}.</b>
        <template v-if="take.review.note"> “{{ take.review.note }}”</template>
      </p>
      <AdvicePanel class="advice" :take="take" @choose="choose" />
      <OtherDrill class="advice" :take="take" />
      <CapoPress class="advice" :take="take" @corrected="(now) => emit('corrected', now)" />
      <NotSo class="advice" :take="take" @corrected="(now) => emit('corrected', now)" />
    </section>
    <!-- Of something else there is nothing to show. -->
    <template v-if="!take.analysis.foreign">
      <TakeFigures :take="take" />
      <section class="sheet stack">
        <div>
          <h2 data-test="every-note">Every note</h2>
          <p class="small quiet">
            Where each note came, above the line early, below it late; under it how loud, and how
            far it sounds towards the next. Inside the grey bands nothing is heard. Press a note to
            hear it and see what was measured.
          </p>
        </div>
        <NoteCard
          v-if="chosen !== undefined"
          v-model:comments="comments"
          :take="take"
          :index="chosen"
          @hear="hear"
          @loop="(from, to) => sound?.playLoop(from, to)"
          @close="chosen = undefined"
        />
        <ul v-else-if="comments.length" class="comments">
          <li v-for="c in comments" :key="c.id">
            <button data-test="pinned-note" type="button" @click="choose(c.note)">
              Note {{ (c.note % take.chart.notes.length) + 1 }}</button
            ><b>{{ c.author.name }}:</b> {{ c.text }}
          </li>
        </ul>
        <TimeLine
          :chart="take.chart"
          :analysis="take.analysis"
          :at="at"
          :chosen="chosen"
          :pinned="pinned"
          @choose="choose"
          @hear="hear"
        />
      </section>
      <section v-if="take.parts" class="sheet stack">
        <div>
          <h2>Part by part</h2>
          <p class="small quiet">
            Each part measured as if it had been recorded alone. {{ take.parts.text }}
          </p>
        </div>
        <PartsTable :take="take" />
      </section>
      <section v-if="passes > 1" class="sheet stack">
        <div>
          <h2 data-test="passes">Passes under one another</h2>
          <p class="small quiet">
            What comes back in every pass is a habit; what comes once is chance. Up is early, down
            is late.
          </p>
        </div>
        <NoteRows
          label="Passes under one another"
          :chart="take.chart"
          :rows="passRows(take.chart, take.analysis)"
          :chosen="chosen"
          @choose="choose"
        />
      </section>
      <div class="two">
        <section
          v-if="take.analysis.transitions.length || take.analysis.across?.length"
          class="sheet stack"
        >
          <div>
            <h2 data-test="transitions">From finger to finger</h2>
            <p class="small quiet">
              By how many ms the step to the second finger is longer (+) or shorter than its share.
              A dash: too few times to say.
            </p>
          </div>
          <PairMatrix :analysis="take.analysis" />
        </section>
        <section v-if="take.analysis.endurance" class="sheet stack">
          <div>
            <h2>Start and end</h2>
            <p class="small quiet">Whether the hand lasts.</p>
          </div>
          <ThirdsTable :endurance="take.analysis.endurance" />
        </section>
      </div>
      <section v-if="take.analysis.groups.length" class="sheet stack">
        <div>
          <h2 data-test="groups">Where the time goes</h2>
          <p class="small quiet">
            The mean lateness (right) or earliness (left) of groups of notes, with the range it may
            lie in. Coloured where it is heard and surely there.
          </p>
        </div>
        <GroupBars :analysis="take.analysis" />
      </section>
      <details class="more stack" :open="person?.role !== 'student'">
        <summary data-test="more-figures">More for the instructor</summary>
        <MoreFigures :analysis="take.analysis" :gate="take.summary.measured.decision.gate" />
      </details>
      <section class="sheet stack">
        <div>
          <h2 data-test="another-take">Another take beside it</h2>
          <p class="small quiet">
            Last month against today, or picked against slurred: any take of the same notes.
          </p>
        </div>
        <ContrastPanel :take="take" />
      </section>
    </template>
  </div>
</template>

<style scoped>
.verdict {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
  font-size: var(--t-lead);
}
.reason {
  flex: 1 1 320px;
}
.advice {
  flex: 1 1 100%;
}
.more > summary {
  cursor: pointer;
  font-weight: 700;
  padding: var(--s2) 0;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: var(--s4);
  align-items: start;
}
.comments {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
.comments button {
  margin-right: var(--s3);
  padding: 2px 10px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
</style>
