<script setup lang="ts">
import { ElInput } from 'element-plus'
import { useId } from 'vue'

/** A labelled line of text, with what one must know to fill it in. */
const {
  hint = '',
  type = 'text',
  autocomplete = 'off',
  rows = 0,
  max = undefined,
} = defineProps<{
  name: string
  hint?: string
  type?: 'text' | 'password' | 'email'
  autocomplete?: string
  rows?: number
  max?: number
}>()
const text = defineModel<string>({ required: true })
const id = useId()
</script>

<template>
  <div class="line">
    <label :for="id">{{ name }}</label>
    <el-input
      :id="id"
      v-model="text"
      :type="rows ? 'textarea' : type"
      :rows="rows"
      :show-password="type === 'password'"
      :autocomplete="autocomplete"
      :maxlength="max"
      :aria-describedby="hint ? `${id}-hint` : undefined"
    />
    <p v-if="hint" :id="`${id}-hint`" class="small quiet">{{ hint }}</p>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  gap: var(--s1);
}
label {
  font-weight: 600;
}
</style>
