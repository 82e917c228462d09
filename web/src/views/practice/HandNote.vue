<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import type { HandRecord } from '../../api/client'
import { handOf } from '../../api/hand'
import { useAttempt } from '../../api/attempt'
import InPain from '../../components/InPain.vue'
import ProblemNote from '../../components/ProblemNote.vue'
import { weekWords } from '../../draw/handwords'

/** Reported pain, above all else; and how much was slurred this week and the one before. */
const props = defineProps<{ studentId: string }>()
const record = ref<HandRecord>()
const { problem, attempt } = useAttempt()
onMounted(() => attempt(async () => (record.value = await handOf(props.studentId))))
const weeks = computed(() => weekWords(record.value?.weeks ?? [], new Date()))
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <InPain :student-id="studentId" />
  <p v-if="weeks" class="quiet">{{ weeks }}</p>
</template>
