<script setup lang="ts">
import { ElButton, ElCheckbox, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import { answer, client, type AuditLine, type Member, type Studio } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { newId } from '../../api/ids'
import { usePages } from '../../api/pages'
import { allMembers, archive, bringPersonBack, teaches } from '../../api/people'
import AuditList from '../../components/AuditList.vue'
import BringIn from '../../components/BringIn.vue'
import Contradictions from '../../components/Contradictions.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'
import { undoable } from '../../components/undo'
import { dayOf } from '../../draw/words'
import { findPerson, here, person } from '../../session'
import NumberLine from '../bench/NumberLine.vue'
import { makeCards } from '../students/cards'
import LetterList from './LetterList.vue'

/** The house: who teaches in it, who is gone, and what was done. */
const router = useRouter()
const studio = ref<Studio>()
const name = ref('')
const timeZone = ref('UTC')
const dropsSounds = ref(false)
const soundDays = ref(90)
const members = ref<Member[]>([])
const gone = ref<Member[]>([])
const fresh = ref({ id: newId(), name: '', email: '' })
const { problem, attempt } = useAttempt()
const lines = usePages<AuditLine>((after) =>
  answer(client.GET('/audit', { params: { query: { after } } })),
)
const isOwner = computed(() => person.value?.role === 'owner')
const staff = computed(() => members.value.filter((m) => teaches(m.person)))
const names = computed(
  () => new Map([...members.value, ...gone.value].map((m) => [m.person.id, m.person.name])),
)

async function load() {
  studio.value = await answer(client.GET('/studio'))
  name.value = studio.value.name
  timeZone.value = studio.value.timeZone
  dropsSounds.value = studio.value.soundDays !== undefined
  soundDays.value = studio.value.soundDays ?? soundDays.value
  members.value = await allMembers()
  gone.value = (await answer(client.GET('/people/gone'))).items
  await lines.first()
}
onMounted(() => attempt(load))

const save = () =>
  attempt(async () => {
    if (!studio.value) return
    const params = { header: { 'If-Match': studio.value.revision } }
    const body = {
      name: name.value,
      timeZone: timeZone.value,
      soundDays: dropsSounds.value ? soundDays.value : undefined,
    }
    studio.value = await answer(client.PUT('/studio', { params, body }))
    await findPerson()
    ElMessage({ message: 'Saved' })
  })
const card = (m: Member) =>
  attempt(async () => {
    await makeCards([m.person])
    await router.push('/cards')
  })
const add = () =>
  attempt(async () => {
    const body = { people: [{ ...fresh.value, role: 'instructor' as const }] }
    const [m] = (await answer(client.POST('/people', { body }))).items
    fresh.value = { id: newId(), name: '', email: '' }
    if (m) await card(m)
  })
const back = (m: Member) =>
  attempt(async () => {
    await bringPersonBack(m.person.id)
    await load()
  })
const exportArchive = (m: Member) =>
  attempt(async () => {
    await archive(m.person.id)
    await load()
    undoable(`${m.person.name} is archived.`, () => back(m))
  })
</script>

<template>
  <div class="stack">
    <h1>{{ here?.studio }}</h1>
    <ProblemNote v-if="problem" :problem="problem">
      <el-button v-if="problem.status === 412" @click="attempt(load)"
        >Show what is there now</el-button
      >
    </ProblemNote>
    <div class="side-by-side">
      <div class="stack">
        <section class="sheet stack">
          <h2 data-test="teachers">Who teaches here</h2>
          <ul>
            <li v-for="m in staff" :key="m.person.id">
              <span class="grow">
                <b>{{ m.person.name }}</b>
                <span class="quiet small">
                  {{ m.person.role === 'owner' ? 'owner' : 'instructor'
                  }}<template v-if="m.state !== 'joined' && !m.person.demo">{{
                    m.state === 'invited' ? ', has a card, not come in yet' : ', has no card yet'
                  }}</template>
                </span>
              </span>
              <template v-if="isOwner && m.person.role === 'instructor'">
                <el-button v-if="!m.person.demo" @click="card(m)">New card</el-button>
                <el-button @click="exportArchive(m)">Archive</el-button>
              </template>
            </li>
          </ul>
          <form v-if="isOwner" class="stack" @submit.prevent="add">
            <h3>Add an instructor</h3>
            <TextLine v-model="fresh.name" name="Name" :max="100" />
            <TextLine
              v-model="fresh.email"
              name="E-mail (may be left out)"
              type="email"
              hint="For a link when the password is forgotten, and for letters they ask for in their settings"
            />
            <div>
              <el-button type="primary" native-type="submit" :disabled="!fresh.name.trim()"
                >Add and make a card</el-button
              >
            </div>
          </form>
          <p v-else class="quiet">The owner adds instructors.</p>
        </section>
        <section class="sheet stack">
          <h2>Moving</h2>
          <p v-if="isOwner">
            <a href="/api/studio/archive.zip" download>The whole studio in one file</a>: students,
            drills, takes with their sound, plans and notes. Nobody’s password is in it.
          </p>
          <BringIn @brought="attempt(load)">{{
            isOwner ? 'Bring in a student, or a whole studio' : 'Bring in a student'
          }}</BringIn>
          <p class="small quiet">
            From the ZIP file that a Manudrill elsewhere has made: “Everything in one file” on the
            page of a student<template v-if="isOwner">
              or of a studio; that comes into one without students alone</template
            >.
          </p>
        </section>
      </div>
      <div class="stack">
        <form v-if="isOwner" class="sheet stack" @submit.prevent="save">
          <h2>The studio</h2>
          <TextLine
            v-model="name"
            name="Name of the studio"
            :hint="`At the door it is asked for as ${studio?.handle ?? ''}, where there are several studios`"
            :max="100"
          />
          <TextLine
            v-model="timeZone"
            name="Time zone"
            hint="By which its days begin, as Europe/Vienna. What was added up before stays as it is"
            :max="64"
          />
          <div>
            <el-checkbox
              v-model="dropsSounds"
              label="Drop the sound of takes, and videos, after a time"
            />
            <NumberLine
              v-if="dropsSounds"
              v-model="soundDays"
              name="Days that sound is kept"
              :min="1"
              :max="3650"
            />
            <p class="small quiet">
              What was measured is kept for ever. The best take of each drill a student has, and
              takes with a comment, keep their sound. Every video is dropped with its time.
            </p>
          </div>
          <div><el-button type="primary" native-type="submit">Save</el-button></div>
        </form>
        <section class="sheet stack">
          <h2>Archived, or to be removed</h2>
          <p v-if="!gone.length" class="quiet">
            Nobody. Students are archived or removed on their page.
          </p>
          <ul>
            <li v-for="m in gone" :key="m.person.id">
              <span class="grow">
                <RouterLink v-if="!teaches(m.person)" :to="`/students/${m.person.id}`">{{
                  m.person.name
                }}</RouterLink>
                <b v-else>{{ m.person.name }}</b>
                <span class="quiet small">
                  <template v-if="m.removeAt">all is deleted {{ dayOf(m.removeAt) }}</template>
                  <template v-else>archived {{ dayOf(m.archivedAt!) }}</template>
                </span>
              </span>
              <el-button v-if="isOwner || !teaches(m.person)" @click="back(m)"
                >Bring back</el-button
              >
            </li>
          </ul>
        </section>
        <section v-if="isOwner && !person?.demo" class="sheet stack">
          <h2>Letters</h2>
          <LetterList />
        </section>
        <section class="sheet stack">
          <h2>What is kept about people</h2>
          <p>
            <RouterLink to="/privacy">What is kept, who sees it and for how long</RouterLink>.
            Consent is noted on the page of each student. Follow the law that holds where you are.
          </p>
        </section>
      </div>
    </div>
    <Contradictions />
    <section v-if="lines.items.value.length" class="sheet stack">
      <h2>What instructors did</h2>
      <AuditList :lines="lines.items.value" :names="names" />
      <p v-if="lines.more.value">
        <el-button @click="attempt(lines.further)">Earlier</el-button>
      </p>
    </section>
  </div>
</template>

<style scoped>
@import '../bench/form.css';
h3 {
  font-size: var(--t-body);
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2) 0;
  border-bottom: var(--edge);
}
li span span {
  display: block;
}
</style>
