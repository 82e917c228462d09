<script setup lang="ts">
/** A button that asks for a file. */
defineProps<{ accept: string; disabled?: boolean }>()
const emit = defineEmits<{ picked: [file: File] }>()

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = '' // the same may be chosen again
  if (file) emit('picked', file)
}
</script>

<template>
  <label class="file"
    ><input type="file" :accept="accept" :disabled="disabled" @change="picked" /><slot
  /></label>
</template>

<style scoped>
.file {
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.file input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.file:focus-within {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
</style>
