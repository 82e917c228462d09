<script setup lang="ts">
import { ref } from 'vue'
import { RouterLink } from 'vue-router'

import { answer, client, type BroughtIn } from '../api/client'
import { useAttempt } from '../api/attempt'
import { fileBody } from '../api/files'
import { count } from '../draw/words'
import FileButton from './FileButton.vue'
import ProblemNote from './ProblemNote.vue'

/** Brings in what was taken out about a student, or about a whole studio. */
const emit = defineEmits<{ brought: [what: BroughtIn] }>()
const brought = ref<BroughtIn>()
const { problem, busy, doing, once } = useAttempt()

const bringIn = (file: File) =>
  once(async () => {
    brought.value = undefined
    brought.value = await answer(
      client.POST('/archives', {
        ...fileBody(file, 'application/zip'),
        signal: AbortSignal.timeout(15 * 60_000),
      }),
    )
    emit('brought', brought.value)
  }, file.name)
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="busy" role="status">{{ doing }} is being brought in: all of it, or nothing.</p>
    <p v-else-if="brought" role="status">
      <b>{{ brought.name }}</b> is here, with {{ count(brought.takes, 'take')
      }}<template v-if="!brought.studentId"> of {{ count(brought.students, 'student') }}</template
      >.
      <RouterLink
        v-if="brought.studentId"
        data-test="open-page"
        :to="`/students/${brought.studentId}`"
        >Open the page</RouterLink
      >
      <template v-else
        >Nobody’s password came along: make cards for those who shall come in.</template
      >
    </p>
    <p v-else>
      <FileButton accept=".zip,application/zip" @picked="bringIn"><slot /></FileButton>
    </p>
  </div>
</template>
