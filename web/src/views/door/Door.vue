<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { ElButton } from 'element-plus'
import { useRouter } from 'vue-router'

import { problemOf, type Person, type Problem } from '../../api/client'
import { allPeople } from '../../api/people'
import ProblemNote from '../../components/ProblemNote.vue'
import { enter, homeOf } from '../../session'

const router = useRouter()
const people = ref<Person[]>([])
const problem = ref<Problem>()
const instructors = computed(() => people.value.filter((p) => p.role === 'instructor'))
const students = computed(() => people.value.filter((p) => p.role === 'student'))
const demo = computed(() => people.value.some((p) => p.demo))

async function load() {
  problem.value = undefined
  try {
    people.value = await allPeople()
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
}
onMounted(load)

async function choose(p: Person) {
  try {
    await router.push(homeOf(await enter(p.id)))
  } catch (thrown) {
    problem.value = problemOf(thrown)
  }
}
</script>

<template>
  <div class="door">
    <section class="about">
      <img src="/mark.svg" alt="" width="56" height="56" />
      <h1>Manudrill</h1>
      <p class="lead">
        Fretting-hand drills, made by a few settings, played with a click, and heard note by note.
      </p>
      <p>Clean, even, relaxed, then fast.</p>
    </section>
    <section class="choose">
      <ProblemNote v-if="problem" :problem="problem"
        ><el-button @click="load">Try again</el-button></ProblemNote
      >
      <template v-else>
        <h2>Who are you?</h2>
        <h3>Instructor</h3>
        <ul>
          <li v-for="p in instructors" :key="p.id">
            <button type="button" @click="choose(p)">
              <b>{{ p.name }}</b><span>makes drills, follows students</span>
            </button>
          </li>
        </ul>
        <h3>Student</h3>
        <ul>
          <li v-for="p in students" :key="p.id">
            <button type="button" @click="choose(p)">
              <b>{{ p.name }}</b><span>practises and records</span>
            </button>
          </li>
        </ul>
        <p v-if="demo" class="small quiet">
          This is a demo: the studio and the people in it are invented, and their takes were played
          by the simulated player.
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(300px, 5fr) 7fr;
}
.about {
  background: var(--wood);
  color: #f4f0e6;
  padding: clamp(24px, 6vw, 88px);
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: var(--s4);
}
.about h1 {
  font-size: clamp(38px, 4.4vw, 64px);
}
.lead {
  font-size: clamp(18px, 1.6vw, 24px);
  max-width: 24em;
}
.choose {
  padding: clamp(24px, 6vw, 88px);
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: var(--s3);
  max-width: 720px;
}
h2 {
  font-size: var(--t-head);
}
h3 {
  margin-top: var(--s3);
  font-size: var(--t-small);
  color: var(--ink-2);
}
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
button {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 var(--s4);
  padding: var(--s3) var(--s4);
  font: inherit;
  color: inherit;
  text-align: left;
  background: var(--sheet);
  border: var(--edge);
  border-radius: var(--round);
  cursor: pointer;
}
button:hover {
  border-color: var(--ink);
}
button b {
  font-size: var(--t-lead);
}
button span {
  color: var(--ink-2);
  font-size: var(--t-small);
}
@media (width < 760px) {
  .door {
    grid-template-columns: 1fr;
    grid-template-rows: auto 1fr;
  }
  .choose {
    justify-content: flex-start;
  }
}
</style>
