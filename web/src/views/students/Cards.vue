<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import { answer, client, type Studio } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'
import { count } from '../../draw/words'
import { here } from '../../session'
import { cards } from './cards'

/** The cards that were just made, to be printed and cut, and the links, to be sent. */
const studio = ref<Studio>()
const several = ref(false)
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    studio.value = await answer(client.GET('/studio'))
    several.value = (await answer(client.GET('/house'))).several
  }),
)
const address = `${location.host}/join`
const link = (code: string) => `${location.origin}/join#${code}`
const copied = ref('')
const links = computed(() => cards.value.map((c) => `${c.name}: ${link(c.code)}`).join('\n'))
async function copy(text: string, what: string) {
  await navigator.clipboard?.writeText(text)
  copied.value = what
}
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <div class="head stack">
      <h1>Cards</h1>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="!cards.length">
        Nothing to print. A card is made on the page of a student, or for all that are shown on the
        students’ page. Its code is told once and kept nowhere, so print it or send its link at
        once.
      </p>
      <template v-else>
        <p data-test="cards">
          {{ count(cards.length, 'card') }}. Print now: the codes are told this once. Whoever has a
          card can come in by it until they choose a password or you make another card. One that
          nobody uses lapses after 60 days.
        </p>
        <div class="row">
          <el-button type="primary" @click="print">Print</el-button>
          <el-button @click="copy(links, 'all')">{{
            copied === 'all' ? 'Links copied' : 'Copy all links'
          }}</el-button>
          <RouterLink to="/students">Back to the students</RouterLink>
        </div>
      </template>
    </div>
    <ul class="cards">
      <li v-for="c in cards" :key="c.id">
        <p class="small">{{ here?.studio }}</p>
        <h2>{{ c.name }}</h2>
        <p>
          Open <b>{{ address }}</b> and type
        </p>
        <p class="code figures">{{ c.code }}</p>
        <p v-if="several && studio" class="small">Studio: {{ studio.handle }}</p>
        <p class="small">Keep this card: it lets you in. Do not show it around.</p>
        <p class="link small">
          <button type="button" class="link" @click="copy(link(c.code), c.id)">
            {{ copied === c.id ? 'Link copied' : 'Copy the link' }}
          </button>
        </p>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.cards {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(330px, 100%), 1fr));
  gap: var(--s4);
}
li {
  background: var(--sheet);
  border: 1px dashed var(--line-2);
  padding: var(--s4);
  display: grid;
  gap: var(--s1);
  break-inside: avoid;
}
h2 {
  font-size: var(--t-head);
}
.code {
  font-size: 30px;
  font-weight: 700;
  letter-spacing: 0.04em;
  white-space: nowrap;
}
@media print {
  .head,
  .link {
    display: none;
  }
  .cards {
    grid-template-columns: 1fr 1fr;
    gap: 0;
  }
  li {
    color: #000;
    background: #fff;
    min-height: 62mm;
    padding: 8mm;
    align-content: center;
  }
}
</style>
