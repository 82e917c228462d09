<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useRouter } from 'vue-router'

import { useAttempt } from '../api/attempt'
import { answer, client, type Take } from '../api/client'
import ProblemNote from './ProblemNote.vue'

/** Another drill of the student was played: which, and one press to hand the take in there. */
const props = defineProps<{ take: Take }>()
const router = useRouter()
const { problem, busy, once } = useAttempt()
const handIn = () =>
  once(async () => {
    const params = { path: { takeId: props.take.summary.id } }
    const there = await answer(client.POST('/takes/{takeId}/there', { params }))
    await router.push(`/takes/${there.id}`)
  })
</script>

<template>
  <div v-if="take.other" data-test="other-drill" class="other">
    <p class="grow">
      It is “{{ take.other.drillName }}”, nearly note for note. Handed in there, it is judged as
      that.
    </p>
    <el-button data-test="hand-in-there" :disabled="busy" @click="handIn">
      Hand it in there
    </el-button>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.other {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3);
}
.grow {
  flex: 1 1 300px;
}
</style>
