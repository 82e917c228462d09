<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import DoorFrame from '../../components/DoorFrame.vue'
import NewPassword from '../../components/NewPassword.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'
import { chooseAccount, comeIn, here, homeOf } from '../../session'
import { secretOfAddress } from './secret'

/** Coming in by a link or a card: once in, one may choose a name and a password, or stay with the card. */
const router = useRouter()
const code = ref(secretOfAddress())
const came = ref(false)
const signIn = ref('')
const password = ref('')
const { problem, attempt } = useAttempt()
const title = computed(() =>
  came.value && here.value ? `Hello ${here.value.person.name}` : 'Come in by your card',
)

const come = () =>
  attempt(async () => {
    await comeIn(code.value)
    signIn.value = here.value?.signIn ?? ''
    came.value = true
  })
onMounted(() => code.value && come())

const goOn = () => here.value && router.replace(homeOf(here.value.person))
const choose = () =>
  attempt(async () => {
    await chooseAccount(signIn.value, password.value)
    await goOn()
  })
</script>

<template>
  <DoorFrame :title="title">
    <ProblemNote v-if="problem" :problem="problem" />
    <form v-if="!came" class="stack" @submit.prevent="come">
      <TextLine
        v-model="code"
        name="Code on the card"
        hint="Twelve letters and digits; dashes and capitals do not matter"
      />
      <div class="row">
        <el-button type="primary" size="large" native-type="submit">Come in</el-button>
        <RouterLink to="/">I have a name and a password</RouterLink>
      </div>
    </form>
    <template v-else>
      <p data-test="joined">
        You are in, at {{ here?.studio }}. How do you want to come in the next time?
      </p>
      <form class="sheet stack" @submit.prevent="choose">
        <h2>By a name and a password of my own</h2>
        <TextLine
          v-model="signIn"
          data-test="sign-in"
          name="Name to sign in with"
          autocomplete="username"
        />
        <NewPassword v-model="password" data-test="password" />
        <div>
          <el-button data-test="choose-these" type="primary" native-type="submit"
            >Choose these</el-button
          >
        </div>
      </form>
      <div class="sheet stack">
        <h2>By the code on my card</h2>
        <p>Keep the card. If it gets lost, your instructor gives you another.</p>
        <div>
          <el-button data-test="go-on-with-card" @click="goOn">Go on with the card</el-button>
        </div>
      </div>
    </template>
  </DoorFrame>
</template>
