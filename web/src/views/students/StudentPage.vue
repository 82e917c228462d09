<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref, type Ref } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'

import { answer, client, type Pupil } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { archive, bringPersonBack, remove } from '../../api/people'
import ProblemNote from '../../components/ProblemNote.vue'
import SetupDialog from '../../components/SetupDialog.vue'
import { undoable } from '../../components/undo'
import { dayOf, momentOf } from '../../draw/words'
import { makeCards } from './cards'
import { openStudent } from './student'

/** One student: who it is, and a page each for how it goes, what is practised, the takes
 * and what is known. */
const route = useRoute()
const id = String(route.params.id)
const router = useRouter()
const pupil = ref<Pupil>()
const setup = ref(false)
const { problem, attempt } = useAttempt()
const member = computed(() => pupil.value?.member)
const isAway = computed(() => !!member.value?.archivedAt || !!member.value?.removeAt)
const pages = [
  { to: '', text: 'Progress' },
  { to: '/lesson', text: 'Lesson' },
  { to: '/plan', text: 'Plan' },
  { to: '/practice', text: 'Practice' },
  { to: '/takes', text: 'Takes' },
  { to: '/about', text: 'About' },
]

async function load() {
  pupil.value = await answer(
    client.GET('/students/{studentId}', { params: { path: { studentId: id } } }),
  )
}
onMounted(() => attempt(load))

const newCard = () =>
  attempt(async () => {
    if (!member.value) return
    await makeCards([member.value.person])
    await router.push('/cards')
  })
const back = () =>
  attempt(async () => {
    await bringPersonBack(id)
    await load()
  })
const away = (how: 'archive' | 'remove') =>
  attempt(async () => {
    const name = member.value?.person.name
    await (how === 'archive' ? archive(id) : remove(id))
    await load()
    undoable(how === 'archive' ? `${name} is archived.` : `${name} is to be removed.`, back)
  })
openStudent({ pupil: pupil as Ref<Pupil>, isAway, reload: load, away })
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="pupil && member">
      <div class="row">
        <div class="head">
          <p class="small"><RouterLink to="/students">Students</RouterLink></p>
          <h1 data-test="student-page" :data-of="member.person.name">{{ member.person.name }}</h1>
          <p data-test="about-them" class="quiet">
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
      <section v-if="pupil.hurtSince" data-test="in-pain" class="sheet pain row" role="alert">
        <p class="grow">
          <b>{{ member.person.name }} has reported pain</b>, {{ dayOf(pupil.hurtSince) }}. No ladder
          climbs, and the plan is empty, until you say so.
        </p>
        <RouterLink data-test="their-hand" :to="`/students/${id}/practice`"
          >What their hand says</RouterLink
        >
      </section>
      <nav class="pages" aria-label="Pages of this student">
        <RouterLink
          v-for="p in pages"
          :key="p.to"
          data-test="page"
          :data-of="p.to"
          :to="`/students/${id}${p.to}`"
          :class="{ here: route.path === `/students/${id}${p.to}` }"
          >{{ p.text }}</RouterLink
        >
      </nav>
      <RouterView />
      <SetupDialog v-if="setup" :person="member.person" @close="setup = false" />
    </template>
  </div>
</template>

<style scoped>
.head {
  flex: 1 1 300px;
}
.pain {
  border-left: 10px solid var(--ink);
}
.pages {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1);
  border-bottom: 1px solid var(--line-2);
}
.pages a {
  padding: 6px 12px;
  text-decoration: none;
  font-weight: 600;
  color: var(--ink-2);
  border-bottom: 3px solid transparent;
}
.pages a.here {
  color: var(--ink);
  border-bottom-color: var(--ink);
}
</style>
