<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import { delayNow } from '../../audio/delay'

import ChoiceLine from '../bench/ChoiceLine.vue'
import SwitchLine from '../bench/SwitchLine.vue'
import ClickSounds from './ClickSounds.vue'
import { click, live, pause, rise, shown, spoken } from './choices'

/** What somebody chooses for the stand, on this device; drill by drill a take may rise. */
defineProps<{ rises?: boolean }>()
const risesBy = [
  { label: 'No', value: 0 },
  { label: '2 bpm', value: 2 },
  { label: '4', value: 4 },
  { label: '8', value: 8 },
]
const pictures = [
  { label: 'Tab', value: 'tab' },
  { label: 'Staff', value: 'staff' },
  { label: 'Neck', value: 'neck' },
  { label: 'Tab and neck', value: 'both' },
] as const
const pauses = [3, 5, 8, 15].map((value) => ({ label: `${value} s`, value }))
const bars = [
  { label: '1 bar', value: 1 },
  { label: '2 bars', value: 2 },
] as const
const divisions = [1, 2, 3, 4, 5, 6, 7, 8].map((value) => ({ label: `${value}`, value }))
/** Bars heard and not, as one choice. */
const inner = [
  { label: 'All', value: '1/0' },
  { label: '1 on, 1 off', value: '1/1' },
  { label: '2 on, 2 off', value: '2/2' },
  { label: '1 on, 3 off', value: '1/3' },
] as const
const delay = computed(() => delayNow())
const heardBars = computed({
  get: () => `${click.value.on}/${click.value.off}`,
  set: (text: string) => {
    const [on = 1, off = 0] = text.split('/').map(Number)
    click.value = { ...click.value, on, off }
  },
})
</script>

<template>
  <div class="choices">
    <ChoiceLine v-model="shown" name="While playing" :options="pictures" />
    <SwitchLine v-model="live" name="Mark notes as they are played" />
    <ChoiceLine v-model="pause" name="Between takes" :options="pauses" />
    <SwitchLine v-model="spoken" name="Say the verdict aloud" />
    <ChoiceLine v-model="click.countIn" name="Count in" :options="bars" />
    <ChoiceLine v-model="click.clicks" name="Clicks a beat" :options="divisions" />
    <ChoiceLine v-model="heardBars" name="Bars heard" :options="inner" />
    <ChoiceLine v-if="rises" v-model="rise" name="Faster with each pass" :options="risesBy" />
    <p v-if="rises && rise > 0" class="small">
      A take that gets faster is measured, but it does not count.
    </p>
    <SwitchLine v-model="click.accents" name="Stress the first beat" />
    <ClickSounds />
    <p class="small">
      {{
        delay
          ? `This device is ${(1000 * delay.seconds).toFixed(0)} ms late, so a take says whether you play ahead of the click.`
          : 'How late this device is was not measured: whether you play ahead of the click is said only where the recording has the click in it.'
      }}
      <RouterLink to="/delay">Measure it</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.choices {
  display: grid;
  max-width: 42em;
  gap: var(--s2);
  font-size: var(--t-body);
}
</style>
