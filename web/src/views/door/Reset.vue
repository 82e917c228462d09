<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import DoorFrame from '../../components/DoorFrame.vue'
import NewPassword from '../../components/NewPassword.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { homeOf, resetPassword } from '../../session'
import { secretOfAddress } from './secret'

const router = useRouter()
const token = secretOfAddress()
const password = ref('')
const { problem, attempt } = useAttempt()
const go = () =>
  attempt(async () => router.replace(homeOf(await resetPassword(token, password.value))))
</script>

<template>
  <DoorFrame title="Set another password">
    <ProblemNote v-if="problem" :problem="problem">
      <RouterLink to="/forgotten">Ask for a new link</RouterLink>
    </ProblemNote>
    <form class="stack" @submit.prevent="go">
      <NewPassword v-model="password" name="New password" />
      <div>
        <el-button type="primary" size="large" native-type="submit">Set it and come in</el-button>
      </div>
    </form>
  </DoorFrame>
</template>
