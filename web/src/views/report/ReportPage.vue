<script setup lang="ts">
import { ElButton, ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { answer, client, type Overview, type Person, type Studio } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'
import { dayMonth } from '../../components/charts/look'
import { count } from '../../draw/words'
import { here, person } from '../../session'
import { teaches } from '../../api/people'
import PracticeDays from '../overview/PracticeDays.vue'
import { minutes } from '../overview/words'
import { reportOf } from './report'

/** A sheet of paper about some weeks with a student, in words that a parent reads. */
const id = String(useRoute().params.id)
const overview = ref<Overview>()
const who = ref<Person>()
const studio = ref<Studio>()
const weeks = ref(13)
const words = ref('')
const { problem, attempt } = useAttempt()
const load = () =>
  attempt(async () => {
    const path = { studentId: id }
    overview.value = await answer(
      client.GET('/students/{studentId}/overview', {
        params: { path, query: { weeks: weeks.value } },
      }),
    )
  })
onMounted(() =>
  attempt(async () => {
    const mine = person.value && !teaches(person.value)
    who.value = mine
      ? person.value!
      : (await answer(client.GET('/students/{studentId}', { params: { path: { studentId: id } } })))
          .member.person
    studio.value = await answer(client.GET('/studio'))
    await load()
  }),
)
watch(weeks, load)
const report = computed(() => overview.value && reportOf(overview.value))
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="row screen">
      <h1 class="grow">Report</h1>
      <el-select v-model="weeks" class="weeks" aria-label="Over how long">
        <el-option :value="4" label="4 weeks" />
        <el-option :value="13" label="13 weeks" />
        <el-option :value="26" label="26 weeks" />
        <el-option :value="52" label="a year" />
      </el-select>
      <el-button data-test="print" type="primary" @click="print">Print</el-button>
    </div>
    <article v-if="overview && report && who" class="sheet paper">
      <header>
        <p class="small quiet">{{ studio?.name ?? here?.studio }}</p>
        <h2>{{ who.name }}</h2>
        <p>
          {{ dayMonth(report.from) }} to {{ dayMonth(report.to) }}: practised on
          {{ count(report.days, 'day') }} of {{ report.allDays }}, {{ minutes(report.seconds) }} of
          recorded playing.
        </p>
      </header>
      <p v-if="!report.days">Nothing was recorded in these weeks.</p>
      <template v-else>
        <section>
          <h3>How it goes</h3>
          <ul>
            <li v-for="s in overview.said" :key="s">{{ s }}</li>
          </ul>
        </section>
        <section v-if="report.drills.length">
          <h3>What was practised</h3>
          <div class="scroll-x" role="region" tabindex="0" aria-label="What was practised">
            <table class="plain">
              <thead>
                <tr>
                  <th>Drill</th>
                  <th class="number">Began at</th>
                  <th class="number">Now at</th>
                  <th class="number">Goal</th>
                  <th class="number">Takes</th>
                  <th class="number">Clean</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="d in report.drills" :key="d.name">
                  <td>{{ d.name }}</td>
                  <td class="number figures">{{ d.from }}</td>
                  <td class="number figures">
                    <b>{{ d.to }}</b>
                  </td>
                  <td class="number figures">{{ d.target }} {{ d.unit }}</td>
                  <td class="number figures">{{ d.takes }}</td>
                  <td class="number figures">{{ d.clean }}</td>
                </tr>
              </tbody>
            </table>
          </div>
        </section>
        <section v-if="report.pairs.length">
          <h3>The fingers</h3>
          <ul>
            <li v-for="p in report.pairs" :key="p">{{ p }}</li>
          </ul>
        </section>
        <section>
          <h3>Days</h3>
          <PracticeDays :weeks="overview.weeks" />
        </section>
      </template>
      <section class="words">
        <h3>From the teacher</h3>
        <el-input
          v-if="person && teaches(person)"
          v-model="words"
          class="screen"
          type="textarea"
          :rows="4"
          placeholder="Some words of your own, for this sheet only."
          aria-label="Some words of your own"
        />
        <p class="own">{{ words }}</p>
      </section>
      <footer class="small quiet">
        A tempo counts as reached when the notes were right and even at it, several times in a row.
        Clean takes are those in which all was. A finger that comes late by more than about 6
        thousandths of a second is heard as uneven. Drawn up by Manudrill from recordings; it is no
        medical advice.
      </footer>
    </article>
  </div>
</template>

<style scoped>
.weeks {
  width: 130px;
}
.paper {
  max-width: 820px;
  width: 100%;
  margin: 0 auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s5);
  padding: var(--s5);
}
h2 {
  font-size: var(--t-head);
}
h3 {
  font-size: var(--t-lead);
  margin: 0 0 var(--s2);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.own {
  white-space: pre-line;
  min-height: 3em;
}
footer {
  border-top: var(--edge);
  padding-top: var(--s2);
}
@media print {
  .screen {
    display: none !important;
  }
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
  }
  section {
    break-inside: avoid;
  }
}
</style>
