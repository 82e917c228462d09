<script setup lang="ts">
import { ElButton, ElCheckbox, ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import {
  answer,
  client,
  type AuditLine,
  type Group,
  type Pupil,
  type SavedRoutine,
  type TakeComment,
} from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import { routinesOf } from '../../api/routines'
import { allGroups, archive, bringPersonBack, remove } from '../../api/people'
import AuditList from '../../components/AuditList.vue'
import LadderBar from '../../components/LadderBar.vue'
import ConflictNote from '../../components/ConflictNote.vue'
import SetupDialog from '../../components/SetupDialog.vue'
import TakeComments from '../../components/TakeComments.vue'
import TakeList from '../../components/TakeList.vue'
import TextLine from '../../components/TextLine.vue'
import { undoable } from '../../components/undo'
import { aboutMinutes } from '../../draw/routinewords'
import { count, dayOf, momentOf, rungShort } from '../../draw/words'
import { makeCards } from './cards'
import HandPanel from './HandPanel.vue'

/** All about one student, on one page. */
const id = String(useRoute().params.id)
const router = useRouter()
const pupil = ref<Pupil>()
const groups = ref<Group[]>([])
const routines = ref<SavedRoutine[]>([])
const setup = ref(false)
const { problem, attempt } = useAttempt()
const form = ref({
  name: '',
  email: '',
  note: '',
  consent: false,
  consentBy: '',
  groups: [] as string[],
})
const takes = usePages((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 15, studentId: id } } })),
)
const lines = usePages<AuditLine>((after) =>
  answer(client.GET('/audit', { params: { query: { after, studentId: id } } })),
)
const comments = usePages<TakeComment>((after) =>
  answer(
    client.GET('/students/{studentId}/comments', {
      params: { path: { studentId: id }, query: { after, limit: 10 } },
    }),
  ),
)
const member = computed(() => pupil.value?.member)
const isAway = computed(() => !!member.value?.archivedAt || !!member.value?.removeAt)

async function load() {
  pupil.value = await answer(
    client.GET('/students/{studentId}', { params: { path: { studentId: id } } }),
  )
  const { person, email, note, consentAt, consentBy, groups: into } = pupil.value.member
  form.value = {
    name: person.name,
    email,
    note,
    consent: !!consentAt,
    consentBy,
    groups: [...into],
  }
}
onMounted(() =>
  attempt(async () => {
    await load()
    ;[groups.value, routines.value] = await Promise.all([allGroups(), routinesOf(id)])
    await Promise.all([takes.first(), comments.first(), lines.first()])
  }),
)

function put(group: string, inside: boolean) {
  form.value.groups = form.value.groups.filter((g) => g !== group)
  if (inside) form.value.groups.push(group)
}
const save = () =>
  attempt(async () => {
    if (!member.value) return
    const params = { path: { personId: id }, header: { 'If-Match': member.value.revision } }
    await answer(client.PUT('/people/{personId}', { params, body: form.value }))
    await Promise.all([load(), lines.first()])
    ElMessage({ message: 'Saved' })
  })
/** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
async function settle(keepMine: boolean) {
  const mine = form.value
  await attempt(load)
  if (!keepMine || problem.value) return
  form.value = mine
  await save()
}
const newCard = () =>
  attempt(async () => {
    if (!member.value) return
    await makeCards([member.value.person])
    await router.push('/cards')
  })
const back = () =>
  attempt(async () => {
    await bringPersonBack(id)
    await Promise.all([load(), lines.first()])
  })
const away = (how: 'archive' | 'remove') =>
  attempt(async () => {
    const name = member.value?.person.name
    await (how === 'archive' ? archive(id) : remove(id))
    await Promise.all([load(), lines.first()])
    undoable(how === 'archive' ? `${name} is archived.` : `${name} is to be removed.`, back)
  })
</script>

<template>
  <div class="stack">
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <template v-if="pupil && member">
      <div class="row">
        <div class="head">
          <p class="small"><RouterLink to="/students">Students</RouterLink></p>
          <h1>{{ member.person.name }}</h1>
          <p class="quiet">
            <template v-if="member.person.demo"
              >invented: anybody may be them in this demo</template
            >
            <template v-else-if="member.state === 'joined'"
              >came in first {{ dayOf(member.joinedAt!)
              }}<template v-if="member.signIn">, signs in as {{ member.signIn }}</template
              ><template v-else>, by card</template></template
            >
            <template v-else-if="member.state === 'invited'"
              >has a card since {{ dayOf(member.invitedAt!) }}, not come in yet</template
            >
            <template v-else>has no card yet, so cannot come in</template>
          </p>
        </div>
        <template v-if="!isAway">
          <el-button @click="setup = true">Guitar and hand</el-button>
          <el-button v-if="!member.person.demo" @click="newCard">{{
            member.state === 'new' ? 'Make a card' : 'New card'
          }}</el-button>
        </template>
      </div>
      <section v-if="isAway" class="sheet row" role="status">
        <p v-if="member.removeAt" class="grow">
          Everything about {{ member.person.name }} is deleted {{ momentOf(member.removeAt) }}:
          takes with their sound, figures, comments and notes. Until then it can be undone.
        </p>
        <p v-else class="grow">
          Archived {{ dayOf(member.archivedAt!) }}: on no list, and cannot come in. All is kept.
        </p>
        <el-button type="primary" @click="back">Bring back</el-button>
        <el-button v-if="!member.removeAt" @click="away('remove')">Remove</el-button>
      </section>
      <div class="parts">
        <div class="stack">
          <HandPanel :student-id="id" :name="member.person.name" />
          <section class="sheet stack">
            <div class="row">
              <h2 class="grow">Routines</h2>
              <el-button v-if="!isAway" @click="router.push(`/students/${id}/routines/new`)"
                >New routine</el-button
              >
            </div>
            <p v-if="!routines.length" class="quiet">
              None yet. A routine is what {{ member.person.name }} practises in one go: drills,
              rests and notes, in order. The stand runs it by itself.
            </p>
            <div v-for="r in routines" :key="r.id" class="row">
              <RouterLink class="grow" :to="`/students/${id}/routines/${r.id}`">{{
                r.routine.name
              }}</RouterLink>
              <span class="small quiet"
                >{{ aboutMinutes(r.seconds) }}, {{ count(r.routine.items.length, 'item') }}</span
              >
            </div>
          </section>
          <section class="sheet stack">
            <h2>Drills</h2>
            <p v-if="!pupil.assignments.length" class="quiet">
              None yet. Assign one from the <RouterLink to="/drills">drills</RouterLink>.
            </p>
            <article v-for="a in pupil.assignments" :key="a.id">
              <div class="row">
                <RouterLink class="grow" :to="`/progress/${a.id}`">{{ a.drillName }}</RouterLink>
                <b class="figures">{{ rungShort(a.rung, a.climb.mixed) }}</b>
              </div>
              <LadderBar :climb="a.climb" :rung="a.rung" />
              <p class="small quiet">
                {{ count(a.takes, 'take')
                }}<template v-if="a.lastTakeAt">, last {{ dayOf(a.lastTakeAt) }}</template
                ><template v-if="a.last">. {{ a.last.reason }}</template>
              </p>
            </article>
          </section>
          <section v-if="comments.items.value.length" class="sheet stack">
            <h2>Comments</h2>
            <TakeComments :comments="comments.items.value" />
            <p v-if="comments.more.value">
              <el-button @click="attempt(comments.further)">Earlier</el-button>
            </p>
          </section>
          <section v-if="lines.items.value.length" class="sheet stack">
            <h2>What instructors did</h2>
            <AuditList :lines="lines.items.value" />
            <p v-if="lines.more.value">
              <el-button @click="attempt(lines.further)">Earlier</el-button>
            </p>
          </section>
        </div>
        <form class="sheet stack" @submit.prevent="save">
          <h2>About</h2>
          <TextLine v-model="form.name" name="Name" :max="100" />
          <TextLine v-model="form.email" name="E-mail" type="email" />
          <TextLine
            v-model="form.note"
            name="Notes"
            :rows="4"
            hint="For the instructors; the student does not see them"
          />
          <fieldset v-if="groups.length">
            <legend>Groups</legend>
            <el-checkbox
              v-for="g in groups"
              :key="g.id"
              :model-value="form.groups.includes(g.id)"
              :label="g.name"
              @update:model-value="(is) => put(g.id, !!is)"
            />
          </fieldset>
          <div>
            <el-checkbox
              v-model="form.consent"
              label="They, or a parent, agree to what the studio keeps"
            />
            <p v-if="member.consentAt" class="small quiet">noted {{ dayOf(member.consentAt) }}</p>
          </div>
          <TextLine
            v-if="form.consent"
            v-model="form.consentBy"
            name="Who agreed, and how"
            hint="As: her mother, on paper"
            :max="200"
          />
          <div class="row">
            <el-button type="primary" native-type="submit">Save</el-button>
            <a class="file" :href="`/api/people/${id}/archive.zip`" download
              >Everything in one file</a
            >
            <template v-if="!isAway">
              <el-button @click="away('archive')">Archive</el-button>
              <el-button @click="away('remove')">Remove</el-button>
            </template>
          </div>
        </form>
      </div>
      <section v-if="takes.items.value.length" class="sheet stack">
        <h2>Takes</h2>
        <TakeList :takes="takes.items.value" with-drill />
        <p v-if="takes.more.value">
          <el-button @click="attempt(takes.further)">Earlier takes</el-button>
        </p>
      </section>
      <SetupDialog v-if="setup" :person="member.person" @close="setup = false" />
    </template>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: var(--s4);
  align-items: start;
}
.head {
  flex: 1 1 300px;
}
.file {
  flex: 1 1 180px;
}
article {
  display: grid;
  gap: var(--s1);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
}
</style>
