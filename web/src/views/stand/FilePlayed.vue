<script setup lang="ts">
import { ElButton, ElInputNumber } from 'element-plus'
import { computed, ref } from 'vue'
import { limits } from '../../api/limits.gen'

/** A recording that was made elsewhere: at which tempo it was played is asked first. */
export interface PlayedAt {
  bpm: number
  asHeard: boolean
}

const props = defineProps<{ name: string; rung: number; heard?: number }>()
const emit = defineEmits<{ handIn: [at: PlayedAt]; leave: [] }>()

const way = ref<'rung' | 'other' | 'heard'>('rung')
const other = ref<number | null>(props.rung)
const ready = computed(() => way.value !== 'other' || !!other.value)

function go() {
  if (!ready.value) return
  emit('handIn', {
    bpm: (way.value === 'other' ? other.value : way.value === 'heard' && props.heard) || props.rung,
    asHeard: way.value === 'heard',
  })
}
</script>

<template>
  <form data-test="played-at" :data-of="name" class="sheet played" @submit.prevent="go">
    <h2>At which tempo was “{{ name }}” played?</h2>
    <fieldset>
      <legend class="visually-hidden">Tempo</legend>
      <label data-test="as-the-stand"
        ><input v-model="way" type="radio" value="rung" /> {{ rung }} bpm, as the stand says</label
      >
      <label>
        <input v-model="way" type="radio" value="other" /> at
        <el-input-number
          v-model="other"
          :min="limits.Rung.bpm.min"
          :max="limits.Rung.bpm.max"
          :step="1"
          aria-label="Tempo in bpm"
          @focus="way = 'other'"
        />
        bpm
      </label>
      <label data-test="as-heard"
        ><input v-model="way" data-test="played-as-heard" type="radio" value="heard" />
        <template v-if="heard">{{ heard }} bpm, as it is heard</template>
        <template v-else>I do not know: take the tempo that is heard</template></label
      >
    </fieldset>
    <p class="quiet">
      The ladder answers at that tempo. Evenness is measured against the tempo that was held,
      whatever is chosen here.
    </p>
    <div class="row">
      <el-button data-test="hand-in-file" native-type="submit" type="primary" :disabled="!ready"
        >Hand it in</el-button
      >
      <el-button data-test="leave-file" @click="emit('leave')">Leave it</el-button>
    </div>
  </form>
</template>

<style scoped>
.played {
  display: grid;
  gap: var(--s3);
}
fieldset {
  display: grid;
  gap: var(--s2);
  border: 0;
  padding: 0;
}
label {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  font-size: var(--t-lead);
}
input[type='radio'] {
  width: 20px;
  height: 20px;
}
</style>
