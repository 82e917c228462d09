<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { ElButton, ElSegmented } from 'element-plus'
import { ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import type { House, Person } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'
import TextLine from '../../components/TextLine.vue'
import { signIn } from '../../session'

/** The ways in: a name and a password, or the code of a card. */
const props = defineProps<{ house: House }>()
const emit = defineEmits<{ came: [person: Person] }>()
const router = useRouter()
const way = ref<'name' | 'card'>('name')
const ways = [
  { label: 'Name and password', value: 'name' },
  { label: 'I have a card', value: 'card' },
]
const studio = useStorage('manudrill studio', '')
const name = ref('')
const password = ref('')
const code = ref('')
const { problem, attempt } = useAttempt()

function go() {
  if (way.value === 'card') return router.push(`/join#${code.value.trim()}`)
  return attempt(async () =>
    emit(
      'came',
      await signIn(name.value, password.value, props.house.several ? studio.value : undefined),
    ),
  )
}
</script>

<template>
  <form class="stack" @submit.prevent="go">
    <el-segmented v-model="way" :options="ways" aria-label="How you come in">
      <template #default="{ item }">
        <span data-test="way" :data-of="item.value">{{ item.label }}</span>
      </template>
    </el-segmented>
    <template v-if="way === 'name'">
      <TextLine
        v-if="house.several"
        v-model="studio"
        name="Studio"
        hint="Its name, as your instructor or your card says"
        autocomplete="organization"
      />
      <TextLine
        v-model="name"
        data-test="sign-in"
        name="Name you sign in with"
        autocomplete="username"
      />
      <TextLine
        v-model="password"
        data-test="password"
        name="Password"
        type="password"
        autocomplete="current-password"
      />
    </template>
    <TextLine
      v-else
      v-model="code"
      data-test="code"
      name="Code on the card"
      hint="Twelve letters and digits; dashes and capitals do not matter"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="row">
      <el-button data-test="come-in" type="primary" size="large" native-type="submit"
        >Come in</el-button
      >
      <RouterLink v-if="way === 'name'" to="/forgotten">The password is forgotten</RouterLink>
    </div>
  </form>
</template>
