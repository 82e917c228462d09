<script setup lang="ts">
import { computed } from 'vue'

import { useAttempt } from '../api/attempt'
import { answer, client, type MeasuredTake, type Take } from '../api/client'
import { newId } from '../api/ids'
import { person } from '../session'
import ProblemNote from './ProblemNote.vue'

/**
 * A take that lies some frets higher may have been played with a capo: then the setup gets it,
 * and its frets are as written. Both can be taken back where they stand.
 */
const props = defineProps<{ take: MeasuredTake }>()
const emit = defineEmits<{ corrected: [take: Take] }>()
const { problem, busy, once } = useAttempt()

/** A capo is put no higher (common practice). */
const highest = 7
const moved = computed(() => {
  const event = props.take.analysis.course.events.find((e) => e.kind === 'transposed')
  const frets = event?.semitones ?? 0
  return event && frets > 0 && frets <= highest ? { event, frets } : undefined
})
const put = () =>
  once(async () => {
    const { event, frets } = moved.value!
    const path = { personId: props.take.summary.student.id }
    const { setup, revision } = await answer(
      client.GET('/people/{personId}/setup', { params: { path } }),
    )
    // By what the take was laid out for: pressed again after a fault, it is put no higher.
    const was = (props.take.chart.tuning[0] ?? 0) - (setup.guitar.tuning[0] ?? 0)
    const guitar = { ...setup.guitar, capo: was + frets }
    await answer(
      client.PUT('/people/{personId}/setup', {
        params: { path, header: { 'If-Match': revision } },
        body: { ...setup, guitar },
      }),
    )
    const now = client.PUT('/takes/{takeId}/corrections/{correctionId}', {
      params: { path: { takeId: props.take.summary.id, correctionId: newId() } },
      body: { of: 'event', kind: 'transposed', index: event.before },
    })
    emit('corrected', await answer(now))
  })
const text = computed(() => {
  const whose = person.value?.id === props.take.summary.student.id ? 'I' : 'They'
  return `${whose} had a capo ${moved.value?.frets} ${moved.value?.frets === 1 ? 'fret' : 'frets'} up`
})
</script>

<template>
  <div v-if="moved">
    <button data-test="had-capo" type="button" class="link" :disabled="busy" @click="put">
      {{ text }}
    </button>
    <span class="small quiet"
      >: then its frets are as written, and the next takes are heard with it. It stands in guitar
      and hand.</span
    >
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>
