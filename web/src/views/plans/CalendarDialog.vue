<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { onMounted, ref } from 'vue'

import { answer, client } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import ProblemNote from '../../components/ProblemNote.vue'

/** A plan in other calendars: as a file, or under an address that they ask by themselves. */
const props = defineProps<{ studentId: string }>()
const emit = defineEmits<{ close: [] }>()
const params = { path: { studentId: props.studentId } }
const has = ref<boolean>()
const address = ref('')
const { problem, attempt } = useAttempt()
onMounted(() =>
  attempt(async () => {
    has.value = (await answer(client.GET('/students/{studentId}/plan/address', { params }))).has
  }),
)
const make = () =>
  attempt(async () => {
    const made = await answer(client.POST('/students/{studentId}/plan/address', { params }))
    address.value = location.origin + made.path
    has.value = true
  })
const revoke = () =>
  attempt(async () => {
    await answer(client.DELETE('/students/{studentId}/plan/address', { params }))
    address.value = ''
    has.value = false
  })
</script>

<template>
  <el-dialog :model-value="true" title="The plan in a calendar" width="560" @close="emit('close')">
    <div class="stack">
      <ProblemNote v-if="problem" :problem="problem" />
      <p>
        <a :href="`/api/students/${studentId}/plan.ics`" download>As a file</a>, which any calendar
        opens: what is planned now.
      </p>
      <div v-if="address" role="status">
        <p>Subscribe to this address in the calendar. It is shown this once:</p>
        <p class="address">{{ address }}</p>
      </div>
      <p v-else-if="has">
        There is an address to which calendars subscribe. Made anew, the old one leads nowhere.
      </p>
      <p v-else-if="has === false">
        Under an address of its own a calendar stays up to date. Whoever knows the address can read
        the plan, until it is revoked.
      </p>
    </div>
    <template #footer>
      <el-button v-if="has" @click="revoke">Revoke the address</el-button>
      <el-button type="primary" @click="make">{{
        has ? 'Make it anew' : 'Make an address'
      }}</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.address {
  overflow-wrap: anywhere;
  font-weight: 700;
  user-select: all;
}
</style>
