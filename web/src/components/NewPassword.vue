<script setup lang="ts">
import TextLine from './TextLine.vue'

/** A password that is chosen. */
const password = defineModel<string>({ required: true })
const { name = 'Password' } = defineProps<{ name?: string }>()
</script>

<template>
  <TextLine
    v-model="password"
    :name="name"
    type="password"
    hint="Eight characters or more; a few words in a row are easy to remember and hard to guess"
    autocomplete="new-password"
  />
</template>
