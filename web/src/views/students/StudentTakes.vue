<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted } from 'vue'

import { answer, client, type TakeComment } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import ProblemNote from '../../components/ProblemNote.vue'
import TakeComments from '../../components/TakeComments.vue'
import TakeList from '../../components/TakeList.vue'
import { useStudent } from './student'

/** All takes of a student, and what was said of them. */
const id = useStudent().pupil.value.member.person.id
const { problem, attempt } = useAttempt()
const takes = usePages((after) =>
  answer(client.GET('/takes', { params: { query: { after, limit: 25, studentId: id } } })),
)
const comments = usePages<TakeComment>((after) =>
  answer(
    client.GET('/students/{studentId}/comments', {
      params: { path: { studentId: id }, query: { after, limit: 10 } },
    }),
  ),
)
onMounted(() => attempt(() => Promise.all([takes.first(), comments.first()])))
</script>

<template>
  <div class="stack">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="takes.asked.value && !takes.items.value.length" class="sheet quiet">
      No take yet. Each take played at the stand is listed here, with its figures.
    </p>
    <section v-if="comments.items.value.length" class="sheet stack">
      <h2>Comments</h2>
      <TakeComments :comments="comments.items.value" />
      <p v-if="comments.more.value">
        <el-button @click="attempt(comments.further)">Earlier</el-button>
      </p>
    </section>
    <section v-if="takes.items.value.length" class="sheet stack">
      <h2>Takes</h2>
      <TakeList :takes="takes.items.value" with-drill />
      <p v-if="takes.more.value">
        <el-button @click="attempt(takes.further)">Earlier takes</el-button>
      </p>
    </section>
  </div>
</template>
