<script setup lang="ts">
import { computed, ref, watch } from 'vue'

/** A labelled list of numbers that is typed. Attributes are those of its field. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  name: string
  text: string
  hint: string
  /** What of a text cannot be read, from where reading stops. */
  unread?: (text: string) => string
}>()
const emit = defineEmits<{ typed: [text: string] }>()

const shown = ref(props.text)
const focused = ref(false)
watch(
  () => props.text,
  (text) => {
    if (!focused.value) shown.value = text
  },
)
const rest = computed(() => props.unread?.(shown.value).trim() ?? '')
const size = computed(() => Math.max(8, Math.min(22, shown.value.length + 1)))

function leave() {
  focused.value = false
  if (!rest.value) shown.value = props.text // what could not be read is not thrown away
}
</script>

<template>
  <label class="line">
    <span>
      {{ name }} <span class="small quiet">{{ hint }}</span>
    </span>
    <input
      v-model="shown"
      v-bind="$attrs"
      class="text figures"
      :size="size"
      :aria-label="name"
      spellcheck="false"
      autocomplete="off"
      @focus="focused = true"
      @input="emit('typed', shown)"
      @blur="leave"
    />
  </label>
  <p v-if="rest" data-test="unread-text" class="fault" role="status">
    Read up to here: “{{ rest }}” is not understood.
  </p>
</template>

<style scoped>
@import './form.css';
.text {
  flex: none;
}
</style>
