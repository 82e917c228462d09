<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { answer, client, type House, type Person } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { demoPeople } from '../../api/people'
import DoorFrame from '../../components/DoorFrame.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { enter, homeOf, person } from '../../session'
import PeopleChoice from './PeopleChoice.vue'
import SignIn from './SignIn.vue'

const route = useRoute()
const router = useRouter()
const house = ref<House>()
const people = ref<Person[]>([])
const { problem, attempt } = useAttempt()
/** The page that somebody wanted to see before they were asked in. */
const wanted = computed(() => {
  const to = route.query.to
  return typeof to === 'string' && to.startsWith('/') && !to.startsWith('//') ? to : undefined
})
const title = computed(() => {
  if (house.value?.demo) return 'Who are you?'
  return house.value && !house.value.begun ? 'No studio here yet' : 'Come in'
})

const load = () =>
  attempt(async () => {
    house.value = await answer(client.GET('/house'))
    if (house.value.demo) people.value = await demoPeople()
    else if (person.value) await goIn(person.value)
  })
onMounted(load)

const goIn = (p: Person) => router.replace(wanted.value ?? homeOf(p))
const choose = (p: Person) => attempt(async () => goIn(await enter(p.id)))
</script>

<template>
  <DoorFrame :title="title">
    <ProblemNote v-if="problem" :problem="problem">
      <el-button v-if="!house" @click="load">Try again</el-button>
    </ProblemNote>
    <p v-if="wanted && house" data-test="not-signed-in" role="status">
      You are not signed in. Come in to go on to “{{ router.resolve(wanted).meta.title }}”; nothing
      you made is lost.
    </p>
    <template v-if="house?.demo">
      <p>
        This is a demo: anybody may be anybody here, without a password. The studio and the people
        in it are invented, and their takes were played by the simulated player.
      </p>
      <PeopleChoice :people="people" @choose="choose" />
    </template>
    <template v-else-if="house && !house.begun">
      <p data-test="not-begun">
        Whoever started Manudrill finds a link in what it printed. It is used once: to name the
        studio and become its owner. Starting Manudrill again prints a new one.
      </p>
    </template>
    <SignIn v-else-if="house" :house="house" @came="goIn" />
  </DoorFrame>
</template>
