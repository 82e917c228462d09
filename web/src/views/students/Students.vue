<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useEventListener, useIntersectionObserver, watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import {
  answer,
  client,
  type Glance,
  type GlanceOrder,
  type GlanceWhy,
  type Group,
  type Member,
  type Person,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import { allGroups, allPeople, teaches } from '../../api/people'
import DemoMaking from '../../components/DemoMaking.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TakeList from '../../components/TakeList.vue'
import UnreadList from '../../components/UnreadList.vue'
import { count } from '../../draw/words'
import { joined, kindWords } from '../glance/glance'
import GlanceTable from '../glance/GlanceTable.vue'
import { person } from '../../session'
import AddStudents from './AddStudents.vue'
import BringInDialog from './BringInDialog.vue'
import { makeCards } from './cards'
import GroupsDialog from './GroupsDialog.vue'
import MeasureAll from './MeasureAll.vue'

const router = useRouter()
const { problem, attempt } = useAttempt()
const group = ref<string>()
const groups = ref<Group[]>([])
const everybody = ref<Person[]>([])
const dialog = ref<'add' | 'groups' | 'bring'>()
const added = ref<Member[]>([])
const glance = ref<Glance>()
const order = ref<GlanceOrder>('need')
const words = ref('')
const kind = ref<GlanceWhy>()
const filter = ref<HTMLInputElement>()
/** An answer that is late is no answer: another order may have been asked for. */
let asked = 0
async function lookOver(after: number) {
  const mine = ++asked
  const query = {
    groupId: group.value,
    order: order.value,
    words: words.value.trim() || undefined,
    why: kind.value,
    after,
  }
  const got = await answer(client.GET('/glance', { params: { query } }))
  return mine === asked ? got : undefined
}
async function glanceOver() {
  const got = await lookOver(0)
  if (got) glance.value = got
}
/** How many there are, and of those how many are asked for. */
const all = computed(() => glance.value?.counts.reduce((sum, c) => sum + c.n, 0) ?? 0)
const wanted = computed(() =>
  kind.value ? (glance.value?.counts.find((c) => c.why === kind.value)?.n ?? 0) : all.value,
)
const hasMore = computed(() => students.value.length < wanted.value)
/** The next ones, as the end of the list comes into view. */
const further = () =>
  attempt(async () => {
    if (!hasMore.value) return
    const got = await lookOver(students.value.length)
    if (got) glance.value = { ...got, students: joined(students.value, got.students) }
  })
watchDebounced(words, () => attempt(glanceOver), { debounce: 200 })
watch([order, kind], () => attempt(glanceOver))
const end = ref<HTMLElement>()
useIntersectionObserver(end, ([seen]) => seen?.isIntersecting && void further(), {
  rootMargin: '600px',
})
const takes = usePages((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 20 } } })),
)
const latest = takes.items
const students = computed(() => glance.value?.students ?? [])
const none = computed(() => glance.value && !all.value && !words.value.trim())

onMounted(() => attempt(() => Promise.all([glanceOver(), takes.first(), look()])))
useEventListener('keydown', (e) => {
  if (
    e.key !== '/' ||
    e.target instanceof HTMLInputElement ||
    e.target instanceof HTMLTextAreaElement
  )
    return
  filter.value?.focus()
  e.preventDefault()
})

async function look() {
  groups.value = await allGroups()
}
const lookAgain = () => attempt(() => Promise.all([glanceOver(), look()]))
const show = (id?: string) =>
  attempt(async () => {
    group.value = id
    if (kind.value) kind.value = undefined
    else await glanceOver()
  })
const openGroups = () =>
  attempt(async () => {
    everybody.value = (await allPeople()).filter((p) => !teaches(p))
    dialog.value = 'groups'
  })
function changedGroups(now: Group[]) {
  groups.value = now
  if (!now.some((g) => g.id === group.value)) group.value = undefined
  void attempt(glanceOver)
}
function haveAdded(people: Member[]) {
  dialog.value = undefined
  added.value = people
  void lookAgain()
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
      <h1>Students</h1>
      <div v-if="groups.length" class="chips roomy" role="group" aria-label="Group shown">
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
      <span v-else class="grow"></span>
      <el-button @click="openGroups">Groups</el-button>
      <el-button data-test="bring-in" @click="dialog = 'bring'">Bring in</el-button>
      <el-button data-test="add-students" type="primary" @click="dialog = 'add'"
        >Add students</el-button
      >
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <DemoMaking v-if="person?.demo" @more="attempt(glanceOver)" />
    <UnreadList />
    <section v-if="added.length" class="sheet row" role="status">
      <p class="grow">
        {{ count(added.length, 'student is', 'students are') }} added. A card lets each come in: it
        has an address and a code.
      </p>
      <el-button data-test="make-cards" type="primary" @click="print(added)"
        >Make {{ count(added.length, 'card') }}</el-button
      >
      <el-button @click="added = []">Later</el-button>
    </section>
    <div v-if="none && !group" class="sheet stack">
      <h2 data-test="no-students">No students yet</h2>
      <p>
        Add them by their names, one by one, from a pasted list or a CSV file. Each gets a card with
        a code, or a link, to come in by; drills are assigned from the
        <RouterLink to="/drills">drills</RouterLink>.
      </p>
    </div>
    <section v-if="glance && !none" class="sheet stack">
      <div class="row">
        <label class="search">
          <span class="visually-hidden">Name or drill</span>
          <input ref="filter" v-model="words" type="search" placeholder="Name or drill" />
        </label>
        <div class="chips roomy" role="group" aria-label="Only those who are">
          <button type="button" class="chip" :aria-pressed="!kind" @click="kind = undefined">
            {{ count(all, 'student') }}
          </button>
          <button
            v-for="k in glance.counts"
            :key="k.why"
            type="button"
            class="chip"
            :aria-pressed="kind === k.why"
            @click="kind = k.why"
          >
            {{ k.n }} {{ kindWords[k.why] }}
          </button>
        </div>
        <p class="small quiet keys">
          <kbd>/</kbd> find <kbd>↑</kbd><kbd>↓</kbd> then <kbd>Enter</kbd> <kbd>T</kbd>ake
          <kbd>L</kbd>esson <kbd>P</kbd>lan <kbd>R</kbd>eport
        </p>
      </div>
      <GlanceTable
        v-if="students.length"
        :students="students"
        :today="glance.today"
        :order="order"
        @order="(by) => (order = by)"
        @end="further"
      />
      <p v-else>Nobody is like that.</p>
      <p v-if="hasMore" ref="end">
        <el-button @click="further">{{
          count(wanted - students.length, 'more student')
        }}</el-button>
      </p>
    </section>
    <section v-if="latest.length" class="sheet stack">
      <h2 data-test="latest-takes">Latest takes</h2>
      <TakeList :takes="latest" with-drill with-student />
      <p v-if="takes.more.value">
        <el-button @click="attempt(takes.further)">Earlier takes</el-button>
      </p>
      <MeasureAll />
    </section>
    <BringInDialog v-if="dialog === 'bring'" @close="dialog = undefined" @brought="lookAgain" />
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
.search input {
  width: 220px;
  padding: 7px 10px;
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  font-size: var(--t-body);
}
.keys {
  white-space: nowrap;
}
@media (width < 1000px) {
  .keys {
    display: none;
  }
}
</style>
