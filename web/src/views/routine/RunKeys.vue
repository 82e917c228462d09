<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'

import type { Phase, RunEvent } from '../../audio/standCore'

/** What can be done at any time, each by a key too. */
const props = defineProps<{ phase: Phase; begun?: boolean }>()
const emit = defineEmits<{ press: [key: RunEvent['key']]; go: [] }>()

const ended = computed(() => props.phase === 'over' || props.phase === 'hurt')
const go = computed(() => {
  if (props.phase !== 'waiting') return 'Hold'
  return props.begun ? 'Go on' : 'Start'
})
</script>

<template>
  <div v-if="!ended" class="keys" role="group" aria-label="While it runs">
    <template v-if="phase !== 'waiting' || begun">
      <button v-if="phase !== 'playing'" type="button" @click="emit('press', 'next')">
        Next <kbd>n</kbd>
      </button>
      <button v-if="phase !== 'reading'" type="button" @click="emit('press', 'repeat')">
        Again <kbd>r</kbd>
      </button>
      <button v-if="phase !== 'waiting'" type="button" @click="emit('press', 'tired')">
        Tired <kbd>t</kbd>
      </button>
      <button type="button" @click="emit('press', 'hurts')">It hurts <kbd>h</kbd></button>
    </template>
    <el-button data-test="go" :data-of="phase" type="primary" class="go" @click="emit('go')"
      >{{ go }} <kbd>space</kbd></el-button
    >
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
button:not(.go) {
  border: 1px solid var(--line-2);
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  font: inherit;
  font-size: clamp(15px, 1.3vw, 24px);
  min-height: 44px;
  padding: 6px 12px;
  cursor: pointer;
}
.go {
  height: 60px;
  padding: 0 28px;
  font-size: clamp(18px, 1.7vw, 32px);
}
@media (pointer: coarse) {
  kbd {
    display: none;
  }
}
</style>
