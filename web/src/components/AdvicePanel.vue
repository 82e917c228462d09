<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { answer, client, problemOf, type Problem, type MeasuredTake } from '../api/client'
import { count } from '../draw/words'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'

/** What a teacher would say of the take, and the drills for it. */
const props = defineProps<{ take: MeasuredTake }>()
const router = useRouter()
const problem = ref<Problem>()
const given = ref<Record<number, string>>({}) // assignment by remedy
const busy = ref(false)

async function give(number: number) {
  problem.value = undefined
  busy.value = true
  try {
    const assignment = await answer(
      client.POST('/takes/{takeId}/remedies/{number}', {
        params: { path: { takeId: props.take.summary.id, number } },
      }),
    )
    if (person.value?.role === 'student') await router.push(`/stand/${assignment.id}`)
    else given.value[number] = assignment.id
  } catch (thrown) {
    problem.value = problemOf(thrown)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="advice">
    <ul class="findings">
      <li v-for="f in take.advice.findings" :key="f.about">{{ f.text }}</li>
    </ul>
    <ol v-if="take.advice.remedies.length" class="remedies" aria-label="Drills for it">
      <li v-for="(r, i) in take.advice.remedies" :key="r.drill.name">
        <div class="grow">
          <b>{{ r.drill.name }}</b>
          <p class="small">
            {{ r.reason }} From {{ r.ladder.startBpm }} to {{ r.ladder.targetBpm }} bpm,
            {{ count(r.drill.rhythm.notesPerBeat, 'note') }} a beat.
          </p>
        </div>
        <span v-if="given[i]" class="given">On {{ take.summary.student.name }}’s list</span>
        <button v-else type="button" :disabled="busy" @click="give(i)">
          {{
            person?.role === 'student' ? 'Practise it' : `Assign to ${take.summary.student.name}`
          }}
        </button>
      </li>
    </ol>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.advice {
  display: grid;
  gap: var(--s4);
}
.findings {
  padding-left: 1.2em;
  display: grid;
  gap: var(--s2);
  font-size: var(--t-body);
}
.findings li:first-child {
  font-size: var(--t-lead);
  font-weight: 600;
}
.remedies {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(380px, 100%), 1fr));
  gap: var(--s3);
  font-size: var(--t-body);
}
.remedies li {
  display: flex;
  gap: var(--s3);
  align-items: center;
  padding: var(--s3) var(--s4);
  background: var(--sheet-2);
  border-radius: var(--round);
}
button {
  flex: none;
  padding: 10px 16px;
  font-size: var(--t-body);
  border: 0;
  border-radius: var(--round);
  background: var(--ink);
  color: var(--sheet);
  cursor: pointer;
}
button:disabled {
  background: var(--ink-3);
}
.given {
  flex: none;
  font-weight: 600;
}
@media (width < 560px) {
  .remedies li {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
