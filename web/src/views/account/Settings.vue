<script setup lang="ts">
import { ElButton, ElMessage } from 'element-plus'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { useAttempt } from '../../api/attempt'
import NewPassword from '../../components/NewPassword.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import SetupDialog from '../../components/SetupDialog.vue'
import TextLine from '../../components/TextLine.vue'
import { light, naming, typeSize } from '../../preferences'
import ChoiceLine from '../bench/ChoiceLine.vue'
import StandChoices from '../stand/StandChoices.vue'
import StandKeys from './StandKeys.vue'
import SwitchLine from '../bench/SwitchLine.vue'
import { chooseAccount, here, leave, leaveEverywhere, wantLetters } from '../../session'

const router = useRouter()
const setup = ref(false)
const signIn = ref(here.value?.signIn ?? '')
const old = ref('')
const password = ref('')
const { problem, attempt } = useAttempt()

const lights = [
  { label: 'Light, dark at the stand', value: 'place' },
  { label: 'Always light', value: 'light' },
  { label: 'Always dark', value: 'dark' },
] as const
const sizes = [
  { label: 'Usual', value: 'usual' },
  { label: 'Large', value: 'large' },
  { label: 'Larger', value: 'larger' },
] as const

const namings = [
  { label: 'B♭, B, C', value: 'english' },
  { label: 'B, H, C', value: 'german' },
  { label: 'La♯, Si, Do', value: 'solfege' },
] as const

const choose = () =>
  attempt(async () => {
    const had = here.value?.hasPassword
    await chooseAccount(signIn.value, password.value, had ? old.value : undefined)
    old.value = password.value = ''
    ElMessage({ message: 'Saved. Other devices are signed out.' })
  })
const out = (everywhere: boolean) =>
  attempt(async () => {
    await (everywhere ? leaveEverywhere() : leave())
    await router.push('/')
  })
</script>

<template>
  <div v-if="here" class="stack">
    <h1>Settings</h1>
    <div class="parts">
      <section class="sheet stack">
        <h2>How the pages look, on this device</h2>
        <ChoiceLine v-model="light" name="Light" :options="lights" stacked />
        <ChoiceLine v-model="typeSize" name="Size of type" :options="sizes" stacked />
        <ChoiceLine v-model="naming" name="Notes are called" :options="namings" stacked />
      </section>
      <template v-if="here.person.role === 'student'">
        <section class="sheet stack">
          <h2>At the stand, on this device</h2>
          <StandChoices />
        </section>
        <StandKeys />
      </template>
      <section class="sheet stack">
        <h2>Guitar and hand</h2>
        <p>
          Tuning, frets, scale length, left-handed, and what each pair of fingers reaches at ease.
          Drills are laid out for them.
        </p>
        <div><el-button @click="setup = true">Set guitar and hand</el-button></div>
      </section>
      <section class="sheet stack">
        <h2>Coming in</h2>
        <p v-if="here.person.demo">This is a demo: nobody has a password here.</p>
        <form v-else class="stack" @submit.prevent="choose">
          <p v-if="!here.hasPassword" data-test="comes-by-card">
            You come in by the code on your card. Choose a name and a password to do without it.
          </p>
          <ProblemNote v-if="problem" :problem="problem" />
          <TextLine v-model="signIn" name="Name you sign in with" autocomplete="username" />
          <TextLine
            v-if="here.hasPassword"
            v-model="old"
            name="Password you have"
            type="password"
            autocomplete="current-password"
          />
          <NewPassword v-model="password" name="New password" />
          <div><el-button type="primary" native-type="submit">Save</el-button></div>
        </form>
      </section>
      <section v-if="here.letters !== undefined" class="sheet stack">
        <h2>Letters</h2>
        <SwitchLine
          :model-value="here.letters"
          name="Write to me when something was said of a take"
          @update:model-value="(wanted) => attempt(() => wantLetters(wanted))"
        />
        <p class="small quiet">
          To your e-mail address, once in six hours at the most. What was said is not in the letter.
        </p>
      </section>
      <section v-if="here.person.role === 'student'" class="sheet stack">
        <h2>Everything about you</h2>
        <p>
          What the studio keeps about you, as one file: your drills, every take with what was
          measured, comments, and your recordings.
        </p>
        <p>
          <a :href="`/api/people/${here.person.id}/archive.zip`" download>Take it out</a> ·
          <RouterLink to="/privacy">what is kept, and who sees it</RouterLink>
        </p>
      </section>
      <section class="sheet stack">
        <h2>Leaving</h2>
        <p>
          {{ here.person.name }}, at {{ here.studio }}. Recordings that were not handed in stay on
          this device until you come back.
        </p>
        <div class="row">
          <el-button @click="out(false)">Leave here</el-button>
          <el-button data-test="leave-everywhere" @click="out(true)"
            >Leave on all devices</el-button
          >
        </div>
      </section>
    </div>
    <SetupDialog v-if="setup" :person="here.person" @close="setup = false" />
  </div>
</template>

<style scoped>
.parts {
  columns: 2 420px;
  column-gap: var(--s4);
}
.parts > section {
  break-inside: avoid;
  margin-bottom: var(--s4);
}
</style>
