<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../api/attempt'
import { answer, client, type MeasuredTake } from '../api/client'
import { divisionWords } from '../draw/words'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'

/** What a teacher would say of the take, and the drills for it; in brief at a distance. */
const props = defineProps<{ take: MeasuredTake; brief?: boolean; here?: boolean }>()
const emit = defineEmits<{ choose: [index: number] }>()
const router = useRouter()
const { problem, busy, once } = useAttempt()
const given = ref<Record<number, string>>({}) // assignment by remedy
const all = ref(false)

/** Few enough to be read at a glance. */
const few = 6
const mistakes = computed(() =>
  props.brief || all.value ? props.take.advice.mistakes : props.take.advice.mistakes.slice(0, few),
)
/** One thing to mind, and what it comes from, are enough at a distance. */
const findings = computed(() =>
  props.brief ? props.take.advice.findings.slice(0, 2) : props.take.advice.findings,
)

const give = (number: number) =>
  once(async () => {
    const assignment = await answer(
      client.POST('/takes/{takeId}/remedies/{number}', {
        params: { path: { takeId: props.take.summary.id, number } },
      }),
    )
    if (person.value?.role === 'student') await router.push(`/stand/${assignment.id}`)
    else given.value[number] = assignment.id
  })
</script>

<template>
  <div class="advice">
    <ul :class="['findings', { brief }]">
      <li v-for="f in findings" :key="f.about">
        <template v-if="f.about !== 'mistakes' || brief">{{ f.text }}</template>
        <template v-else>
          {{ take.advice.tally }}.
          <ul class="mistakes" aria-label="Mistakes">
            <li v-for="m in mistakes" :key="`${m.t} ${m.text}`">
              <button type="button" @click="emit('choose', Math.max(0, m.index))">
                {{ m.text.charAt(0).toUpperCase() + m.text.slice(1) }}
              </button>
            </li>
          </ul>
          <button
            v-if="take.advice.mistakes.length > few && !all"
            type="button"
            class="link"
            @click="all = true"
          >
            All {{ take.advice.mistakes.length }}
          </button>
        </template>
      </li>
    </ul>
    <ol v-if="take.advice.remedies.length" class="remedies" aria-label="Drills for it">
      <li v-for="(r, i) in take.advice.remedies" :key="r.drill.name">
        <div class="grow">
          <b>{{ r.drill.name }}</b>
          <p class="small">
            {{ r.reason }} From {{ r.ladder.startBpm }} to {{ r.ladder.targetBpm }} bpm,
            {{ divisionWords(r.drill.rhythm) }}.
          </p>
        </div>
        <span v-if="given[i]" data-test="given" class="given"
          >On {{ take.summary.student.name }}’s list</span
        >
        <button
          v-else-if="!here"
          data-test="take-remedy"
          :data-of="i"
          type="button"
          :disabled="busy"
          @click="give(i)"
        >
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
.findings > li:first-child {
  font-size: var(--t-lead);
  font-weight: 600;
}
/* A single thing is no list. */
.findings:has(> li:only-child) {
  list-style: none;
  padding: 0;
}
.findings.brief {
  list-style: none;
  padding: 0;
  font-size: clamp(18px, 2vw, 24px);
}
.findings.brief > li:first-child {
  font-size: clamp(20px, 2.4vw, 30px);
}
.mistakes {
  list-style: none;
  padding: 0;
  margin: var(--s2) 0 0;
  display: grid;
  gap: var(--s1);
  font-size: var(--t-body);
  font-weight: 400;
}
.mistakes button {
  padding: 4px 0;
  border: 0;
  background: none;
  color: var(--ink);
  text-align: left;
  text-decoration: underline;
  text-decoration-color: var(--line-2);
  text-underline-offset: 3px;
  cursor: pointer;
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
.remedies button {
  flex: none;
  padding: 10px 16px;
  font-size: var(--t-body);
  border: 0;
  border-radius: var(--round);
  background: var(--ink);
  color: var(--sheet);
  cursor: pointer;
}
.remedies button:disabled {
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
