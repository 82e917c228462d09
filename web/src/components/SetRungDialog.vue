<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElMessage } from 'element-plus'
import { computed, ref, useId } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type Assignment, type Gate } from '../api/client'
import GateFields from '../views/bench/GateFields.vue'
import NumberLine from '../views/bench/NumberLine.vue'
import ProblemNote from './ProblemNote.vue'
import TextLine from './TextLine.vue'
import { limits } from '../api/limits.gen'

/** An instructor puts one student on a rung, with a gate of their own where wanted, and says why. */
const props = defineProps<{
  assignment: Assignment
  /** From one rung to the next, bpm. */
  step: number
  /** Why, where that is plain; it can be changed. */
  why?: string
}>()
const emit = defineEmits<{ close: []; set: [] }>()

const from = ref(props.assignment)
const bpm = ref(from.value.rung.bpm)
const notesPerBeat = ref(from.value.rung.notesPerBeat)
const ownGate = ref(from.value.ownGate)
const gate = ref<Gate>({ ...from.value.gate })
const reason = ref(props.why ?? '')
const form = useId()
const { problem, attempt } = useAttempt()
const title = computed(() => `Rung of ${from.value.student.name}`)
const path = computed(() => ({ assignmentId: from.value.id }))

const save = () =>
  attempt(async () => {
    await answer(
      client.PUT('/assignments/{assignmentId}/rung', {
        params: { path: path.value, header: { 'If-Match': from.value.revision } },
        body: {
          rung: { bpm: bpm.value, notesPerBeat: notesPerBeat.value },
          gate: ownGate.value ? gate.value : undefined,
          reason: reason.value,
        },
      }),
    )
    ElMessage({ message: `${from.value.student.name} stands at ${bpm.value} bpm now` })
    emit('set')
    emit('close')
  })
/** What is most often done stands a press away: by as much as the ladder steps, where it does. */
const steps = computed(() =>
  [-2, -1, 1]
    .map((by) => ({
      by,
      bpm: Math.min(
        limits.Rung.bpm.max,
        Math.max(limits.Rung.bpm.min, from.value.rung.bpm + by * props.step),
      ),
    }))
    .filter((s) => s.bpm !== from.value.rung.bpm),
)
/** Typing begins with the tempo, unless it has begun elsewhere; Enter sets it. */
function typeTempo() {
  const fields = document.getElementById(form)
  if (fields?.contains(document.activeElement)) return
  fields?.querySelector<HTMLElement>('[role=spinbutton]')?.focus()
}
/** Another instructor has set it meanwhile: what they set is shown instead. */
const showNow = () =>
  attempt(async () => {
    const now = await answer(
      client.GET('/assignments/{assignmentId}', { params: { path: path.value } }),
    )
    from.value = now.assignment
    bpm.value = from.value.rung.bpm
    notesPerBeat.value = from.value.rung.notesPerBeat
    ownGate.value = from.value.ownGate
    gate.value = { ...from.value.gate }
  })
</script>

<template>
  <el-dialog
    data-test="set-rung-dialog"
    :model-value="true"
    :title="title"
    width="520"
    @opened="typeTempo"
    @close="emit('close')"
  >
    <form :id="form" class="stack" @submit.prevent="save">
      <ProblemNote v-if="problem" :problem="problem">
        <el-button v-if="problem.status === 412" @click="showNow">Show what is there now</el-button>
      </ProblemNote>
      <p class="small quiet">
        For “{{ assignment.drillName }}”. It moves {{ assignment.student.name }} alone; takes go on
        from there.
      </p>
      <NumberLine
        v-model="bpm"
        data-test="bpm"
        name="Tempo, bpm"
        :min="limits.Rung.bpm.min"
        :max="limits.Rung.bpm.max"
      />
      <div class="chips" role="group" aria-label="Tempi beside, bpm">
        <button
          v-for="s in steps"
          :key="s.by"
          data-test="rung-step"
          :data-of="s.by"
          type="button"
          class="chip"
          :aria-pressed="bpm === s.bpm"
          @click="bpm = s.bpm"
        >
          {{ Math.abs(s.by * step) }} {{ s.by < 0 ? 'lower' : 'higher' }}, {{ s.bpm }}
        </button>
      </div>
      <NumberLine v-model="notesPerBeat" name="Notes per beat" :min="1" :max="8" />
      <el-checkbox v-model="ownGate" label="A gate of their own, in place of the drill’s" />
      <GateFields v-if="ownGate" v-model="gate" />
      <TextLine
        v-model="reason"
        data-test="reason"
        name="Reason"
        hint="The student sees it on the practice page and on the stand"
        :rows="2"
        :max="500"
      />
    </form>
    <template #footer>
      <el-button @click="emit('close')">Leave as it was</el-button>
      <el-button
        data-test="set-rung-now"
        type="primary"
        native-type="submit"
        :form="form"
        :disabled="!reason.trim()"
        >Set the rung</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
@import '../views/bench/form.css';
</style>
