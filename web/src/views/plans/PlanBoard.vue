<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { Plan, PlanExercise, PlanLine, SavedPlan } from '../../api/client'
import { dayMonth } from '../../components/charts/look'
import { count } from '../../draw/words'
import { copied, daysOn, lasts, lineAt, moved, released, removed, type Slot } from './edits'
import LineEditor from './LineEditor.vue'
import { briefly, happened, lineName, weekdays } from './words'

/**
 * The weeks of a plan, a row each. Lines are dragged, or moved by the keyboard: with Alt
 * the arrows move the line that has the focus, Delete takes it out, Enter opens it.
 */
const props = defineProps<{
  plan: Plan
  today: string
  played: SavedPlan['played']
  exercises: PlanExercise[]
  editable: boolean
  /** How many weeks from this one on are shown; all of them where it is not said. */
  weeks?: number
}>()
const emit = defineEmits<{ change: [plan: Plan] }>()
const board = ref<HTMLElement>()
const dragged = ref<Slot>()
const over = ref<string>()
const opened = ref<Slot>()

const isPast = (date: string) => date.slice(0, 10) < props.today.slice(0, 10)
const isToday = (date: string) => date.slice(0, 10) === props.today.slice(0, 10)
const keyOf = (p: Slot) => `${p.week}-${p.day}-${p.line}`

async function focusOn(p: Slot) {
  await nextTick()
  board.value?.querySelector<HTMLElement>(`[data-at="${keyOf(p)}"]`)?.focus()
}
function take(from: Slot, to: { week: number; day: number; line?: number }) {
  const day = props.plan.weeks[to.week]?.days[to.day]
  if (!day || isPast(day.date)) return
  emit('change', moved(props.plan, from, to))
}
function key(e: KeyboardEvent, at: Slot) {
  if (!props.editable || isPast(props.plan.weeks[at.week]!.days[at.day]!.date)) return
  const days = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
  const places = { ArrowUp: -1, ArrowDown: 1 }[e.key]
  if (e.altKey && days) {
    const to = daysOn(props.plan, at, days)
    if (to) {
      const line = props.plan.weeks[to.week]?.days[to.day]?.lines.length ?? 0 // it comes last
      take(at, to)
      void focusOn({ ...to, line })
    }
  } else if (e.altKey && places) {
    const line = at.line + places
    if (lineAt(props.plan, { ...at, line })) {
      take(at, { week: at.week, day: at.day, line })
      void focusOn({ ...at, line })
    }
  } else if (e.key === 'Delete' || e.key === 'Backspace') {
    emit('change', removed(props.plan, at))
    void focusOn({ ...at, line: Math.max(0, at.line - 1) })
  } else if (e.key === 'Enter') opened.value = at
  else return
  e.preventDefault()
}
function drop(week: number, day: number, line?: number) {
  if (dragged.value) take(dragged.value, { week, day, line })
  dragged.value = over.value = undefined
}
const open = computed(() => (opened.value ? lineAt(props.plan, opened.value) : undefined))
/** Weeks that are over are folded away. */
const showsPast = ref(false)
const pastWeeks = computed(
  () => props.plan.weeks.filter((w) => isPast(w.days.at(-1)?.date ?? w.begins)).length,
)
const isShown = (week: number) =>
  props.weeks === undefined
    ? showsPast.value || week >= pastWeeks.value
    : week >= pastWeeks.value && week < pastWeeks.value + props.weeks
const why = (l: PlanLine) => [l.reason, l.rule ? '' : 'Put here by hand.'].filter(Boolean).join(' ')
</script>

<template>
  <div ref="board" class="board">
    <p v-if="pastWeeks && !weeks">
      <button type="button" class="link small" @click="showsPast = !showsPast">
        {{ showsPast ? 'Fold away' : 'Show' }} {{ count(pastWeeks, 'week') }} that
        {{ pastWeeks === 1 ? 'is' : 'are' }} over
      </button>
    </p>
    <section
      v-for="(w, week) in plan.weeks"
      v-show="isShown(week)"
      :key="w.begins"
      data-test="week"
      class="week"
    >
      <header>
        <b>Week of {{ dayMonth(w.begins) }}</b>
        <span v-if="w.theme" class="small">{{ w.theme }}</span>
        <span v-if="w.positions.length" class="small quiet"
          >{{ w.positions.length > 1 ? 'positions' : 'position' }}
          {{ w.positions.join(' and ') }}</span
        >
        <button
          v-if="editable && plan.weeks[week + 1] && isShown(week + 1)"
          type="button"
          class="link small"
          @click="emit('change', copied(plan, week, week + 1))"
        >
          copy to the next week
        </button>
      </header>
      <ol>
        <li
          v-for="(d, day) in w.days"
          :key="d.date"
          :class="{
            past: isPast(d.date),
            today: isToday(d.date),
            over: over === d.date,
            free: !d.lines.length,
          }"
          @dragover.prevent="over = d.date"
          @dragleave="over = undefined"
          @drop.prevent="drop(week, day)"
        >
          <p class="date small">
            <b>{{ weekdays[day] }}</b> {{ dayMonth(d.date) }}
            <span v-if="lasts(d)" class="quiet">{{ Math.round(lasts(d) / 60) }} min</span>
          </p>
          <p v-if="d.clean && d.lines.length" class="small clean">clean tone</p>
          <div
            v-for="(l, line) in d.lines"
            :key="line"
            :data-at="keyOf({ week, day, line })"
            class="line"
            :class="[
              l.kind,
              { done: l.drill && happened(d, played).drills.has(l.drill), own: !l.rule },
            ]"
            :tabindex="editable ? 0 : undefined"
            :draggable="editable && !isPast(d.date)"
            :title="why(l)"
            :role="editable ? 'button' : undefined"
            @dragstart="dragged = { week, day, line }"
            @dragend="dragged = over = undefined"
            @drop.prevent.stop="drop(week, day, line)"
            @keydown="key($event, { week, day, line })"
            @dblclick="editable && !isPast(d.date) && (opened = { week, day, line })"
          >
            <span class="grow">{{ lineName(l) }}</span>
            <span class="small quiet figures whole"
              >{{ briefly(l.seconds)
              }}<template v-if="l.position && l.kind !== 'rest'">
                · {{ l.position }}</template
              ></span
            >
          </div>
          <p v-if="!d.lines.length" class="small quiet">{{ d.reason }}</p>
          <p v-if="d.byHand" class="small quiet">
            by hand<template v-if="editable && !isPast(d.date)"
              >,
              <button type="button" class="link" @click="emit('change', released(plan, week, day))">
                back to the rules
              </button></template
            >
          </p>
          <p v-if="isPast(d.date) && happened(d, played).wanted" class="small">
            {{
              happened(d, played).done
                ? `played ${happened(d, played).done} of ${happened(d, played).wanted}`
                : 'not played'
            }}
          </p>
        </li>
      </ol>
    </section>
    <LineEditor
      v-if="opened && open"
      :plan="plan"
      :at="opened"
      :exercises="exercises"
      @change="(p) => emit('change', p)"
      @close="opened = undefined"
    />
    <p v-if="editable" class="small quiet">
      Drag a line to another day, or with the focus on it <kbd>Alt</kbd> <kbd>←</kbd> <kbd>→</kbd>
      <kbd>↑</kbd> <kbd>↓</kbd> move it, <kbd>Delete</kbd> takes it out, <kbd>Enter</kbd> opens it.
      <kbd>Ctrl</kbd> <kbd>S</kbd> keeps the plan. The rules leave a day alone that was changed by
      hand.
    </p>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  gap: var(--s4);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s2) var(--s3);
  margin-bottom: var(--s2);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: var(--s1);
}
li {
  display: grid;
  gap: 3px;
  align-content: start;
  min-height: 92px;
  padding: var(--s2);
  background: var(--sheet);
  border: var(--edge);
  border-radius: var(--round);
}
li.free {
  background: none;
}
li.past {
  opacity: 0.75;
}
li.today {
  border: 2px solid var(--ink);
}
li.over {
  background: var(--sheet-2);
  border-style: dashed;
}
.date {
  display: flex;
  gap: var(--s1);
  flex-wrap: wrap;
}
.date span {
  margin-left: auto;
}
.clean {
  font-style: italic;
}
.line {
  display: grid;
  padding: 2px 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-size: calc(14px * var(--scale, 1));
  line-height: 1.3;
  overflow-wrap: anywhere;
}
.line[draggable='true'] {
  cursor: grab;
}
.line.warmUp {
  border-style: dashed;
}
.line.rest {
  display: flex;
  gap: var(--s2);
  border: 0;
  padding: 0 6px;
  color: var(--ink-3);
}
.line.own {
  border-color: var(--ink);
}
.line.done {
  border-left: 5px solid var(--ink);
}
@media (width < 900px) {
  ol {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    min-height: 0;
  }
}
</style>
