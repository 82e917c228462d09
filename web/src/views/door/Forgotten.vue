<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'

import { answer, client } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import DoorFrame from '../../components/DoorFrame.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'

const several = ref(false)
const studio = useStorage('manudrill studio', '')
const name = ref('')
const asked = ref(false)
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    several.value = (await answer(client.GET('/house'))).several
  }),
)
const ask = () =>
  attempt(async () => {
    const body = { name: name.value, studio: several.value ? studio.value : undefined }
    await answer(client.POST('/resets', { body }))
    asked.value = true
  })
</script>

<template>
  <DoorFrame title="The password is forgotten">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="asked" role="status">
      If there is somebody of this name with an e-mail address, a letter with a link is on its way.
      It is good for an hour. Where nobody sends letters, the owner of the studio finds it and
      passes it on.
    </p>
    <form v-else class="stack" @submit.prevent="ask">
      <TextLine
        v-if="several"
        v-model="studio"
        name="Studio"
        hint="Its name, as your instructor or your card says"
        autocomplete="organization"
      />
      <TextLine v-model="name" name="Name you sign in with" autocomplete="username" />
      <div>
        <el-button type="primary" size="large" native-type="submit">Ask for a letter</el-button>
      </div>
    </form>
    <p class="quiet">
      Without an e-mail address, ask your instructor for a new card: it lets you in and lets you
      choose another password. The owner asks whoever runs Manudrill.
    </p>
    <p><RouterLink to="/">Back to the door</RouterLink></p>
  </DoorFrame>
</template>
