<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { answer, client } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import DoorFrame from '../../components/DoorFrame.vue'
import NewPassword from '../../components/NewPassword.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'
import { begin, homeOf } from '../../session'
import { secretOfAddress } from './secret'

const router = useRouter()
const usable = ref(false)
const b = ref({
  token: secretOfAddress(),
  studio: '',
  name: '',
  email: '',
  signIn: '',
  password: '',
})
const { problem, attempt } = useAttempt()

onMounted(() =>
  attempt(async () => {
    await answer(client.POST('/house/opening', { body: { token: b.value.token } }))
    usable.value = true
  }),
)
const go = () => attempt(async () => router.replace(homeOf(await begin(b.value))))
</script>

<template>
  <DoorFrame title="Begin your studio">
    <form v-if="usable" data-test="begin-studio" class="stack" @submit.prevent="go">
      <p>
        You will be its owner: you add instructors, instructors add students. Everything can be
        changed later.
      </p>
      <TextLine
        v-model="b.studio"
        data-test="studio-name"
        name="Name of the studio"
        autocomplete="organization"
      />
      <TextLine
        v-model="b.name"
        data-test="own-name"
        name="Your name"
        hint="As students see it, beside your comments"
        autocomplete="name"
      />
      <TextLine
        v-model="b.signIn"
        data-test="sign-in"
        name="Name you sign in with"
        autocomplete="username"
      />
      <NewPassword v-model="b.password" data-test="password" />
      <TextLine
        v-model="b.email"
        name="E-mail (may be left out)"
        type="email"
        hint="For a link when the password is forgotten, and for letters they ask for in their settings"
        autocomplete="email"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <div class="row">
        <el-button data-test="begin" type="primary" size="large" native-type="submit"
          >Begin</el-button
        >
      </div>
    </form>
    <template v-else-if="problem">
      <ProblemNote :problem="problem" />
      <p><RouterLink to="/">To the door</RouterLink></p>
    </template>
  </DoorFrame>
</template>
