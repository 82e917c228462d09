<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import { answer, client, type Group, type Member, type Person, type Pupil } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import { allGroups, allPeople, teaches } from '../../api/people'
import LadderBar from '../../components/LadderBar.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import StepWord from '../../components/StepWord.vue'
import TakeList from '../../components/TakeList.vue'
import UnreadList from '../../components/UnreadList.vue'
import { count, dayOf, rungShort } from '../../draw/words'
import { person } from '../../session'
import AddStudents from './AddStudents.vue'
import { makeCards } from './cards'
import GroupsDialog from './GroupsDialog.vue'
import MeasureAll from './MeasureAll.vue'

const router = useRouter()
const { problem, attempt } = useAttempt()
const group = ref<string>()
const groups = ref<Group[]>([])
const everybody = ref<Person[]>([])
const dialog = ref<'add' | 'groups'>()
const added = ref<Member[]>([])
const pupils = usePages<Pupil>((after) =>
  answer(
    client.GET('/students', { params: { query: { after, limit: 60, groupId: group.value } } }),
  ),
)
const takes = usePages((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 20 } } })),
)
const students = pupils.items
const latest = takes.items
const none = computed(() => pupils.asked.value && !students.value.length)

/** Who has reported pain: seen before all else. */
const hurting = ref<Pupil[]>([])
async function lookAtHands() {
  const found = await answer(client.GET('/students', { params: { query: { hurt: true } } }))
  hurting.value = found.items
}

onMounted(() => attempt(() => Promise.all([lookAtHands(), pupils.first(), takes.first(), look()])))

async function look() {
  groups.value = await allGroups()
}
const show = (id?: string) =>
  attempt(async () => {
    group.value = id
    await pupils.first()
  })
const openGroups = () =>
  attempt(async () => {
    everybody.value = (await allPeople()).filter((p) => !teaches(p))
    dialog.value = 'groups'
  })
function changedGroups(now: Group[]) {
  groups.value = now
  if (!now.some((g) => g.id === group.value)) group.value = undefined
  void attempt(pupils.first)
}
function haveAdded(people: Member[]) {
  dialog.value = undefined
  added.value = people
  void attempt(() => Promise.all([pupils.first(), look()]))
}
const print = (people: Member[]) =>
  attempt(async () => {
    await makeCards(people.map((m) => m.person))
    await router.push('/cards')
  })
</script>

<template>
  <div class="stack">
    <div class="row">
      <h1 class="grow">Students</h1>
      <el-button @click="openGroups">Groups</el-button>
      <el-button type="primary" @click="dialog = 'add'">Add students</el-button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <section v-if="hurting.length" class="sheet pain" role="alert">
      <h2>Reported pain</h2>
      <p v-for="p in hurting" :key="p.member.person.id">
        <RouterLink :to="`/students/${p.member.person.id}`">{{ p.member.person.name }}</RouterLink>,
        {{ dayOf(p.hurtSince!) }}. No ladder of theirs climbs until you say so.
      </p>
    </section>
    <UnreadList />
    <section v-if="added.length" class="sheet row" role="status">
      <p class="grow">
        {{ count(added.length, 'student is', 'students are') }} added. A card lets each come in: it
        has an address and a code.
      </p>
      <el-button type="primary" @click="print(added)"
        >Make {{ count(added.length, 'card') }}</el-button
      >
      <el-button @click="added = []">Later</el-button>
    </section>
    <div v-if="groups.length" class="chips" role="group" aria-label="Group shown">
      <button type="button" class="chip" :aria-pressed="!group" @click="show()">All</button>
      <button
        v-for="g in groups"
        :key="g.id"
        type="button"
        class="chip"
        :aria-pressed="group === g.id"
        @click="show(g.id)"
      >
        {{ g.name }}
      </button>
    </div>
    <div v-if="none && !group" class="sheet stack">
      <h2>No students yet</h2>
      <p>
        Add them by their names, one by one, from a pasted list or a CSV file. Each gets a card with
        a code, or a link, to come in by; drills are assigned from the
        <RouterLink to="/drills">drills</RouterLink>.
      </p>
    </div>
    <div class="cards">
      <section v-for="p in students" :key="p.member.person.id" class="sheet">
        <h2>
          <RouterLink :to="`/students/${p.member.person.id}`">{{
            p.member.person.name
          }}</RouterLink>
        </h2>
        <p v-if="p.member.state !== 'joined' && !person?.demo" class="small quiet">
          {{ p.member.state === 'invited' ? 'has a card, not come in yet' : 'has no card yet' }}
        </p>
        <p v-if="p.assignments.length === 0" class="quiet">
          Has no drill yet. Assign one from the drills.
        </p>
        <article v-for="a in p.assignments" :key="a.id">
          <div class="row">
            <RouterLink class="grow" :to="`/progress/${a.id}`">{{ a.drillName }}</RouterLink>
            <b class="figures">{{ rungShort(a.rung, a.climb.mixed) }}</b>
          </div>
          <LadderBar :climb="a.climb" :rung="a.rung" />
          <p class="small quiet row">
            <span class="grow">
              {{ count(a.takes, 'take')
              }}<template v-if="a.lastTakeAt">, last {{ dayOf(a.lastTakeAt) }}</template>
            </span>
            <StepWord v-if="a.last" :decision="a.last" />
          </p>
        </article>
      </section>
    </div>
    <p v-if="pupils.more.value">
      <el-button @click="attempt(pupils.further)">More students</el-button>
    </p>
    <section v-if="latest.length" class="sheet stack">
      <h2>Latest takes</h2>
      <TakeList :takes="latest" with-drill with-student />
      <p v-if="takes.more.value">
        <el-button @click="attempt(takes.further)">Earlier takes</el-button>
      </p>
      <MeasureAll />
    </section>
    <AddStudents
      v-if="dialog === 'add'"
      :groups="groups"
      @close="dialog = undefined"
      @added="haveAdded"
    />
    <GroupsDialog
      v-if="dialog === 'groups'"
      :groups="groups"
      :students="everybody"
      @close="dialog = undefined"
      @changed="changedGroups"
    />
  </div>
</template>

<style scoped>
@import '../bench/form.css';
.pain {
  border-left: 10px solid var(--ink);
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(284px, 100%), 1fr));
  gap: var(--s4);
}
article {
  margin-top: var(--s4);
  display: grid;
  gap: var(--s1);
}
</style>
