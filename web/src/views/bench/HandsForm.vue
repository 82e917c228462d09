<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'

import type { Drill } from '../../api/client'
import ChoiceLine from './ChoiceLine.vue'
import {
  anews,
  attackRules,
  divisions,
  stretches,
  strokeRules,
  swings,
  tapFingers,
} from './choices'
import NumberLine from './NumberLine.vue'
import SwitchLine from './SwitchLine.vue'
import { limits } from '../../api/limits.gen'

/** How the notes start and who plays them: attacks, strokes, rhythm, fingers. */
const drill = defineModel<Drill>({ required: true })
defineProps<{ faults: Record<string, string> }>()

function set<K extends keyof Drill>(key: K, parts: Partial<Drill[K]>) {
  drill.value = { ...drill.value, [key]: { ...(drill.value[key] as object), ...parts } }
}
const cycle = computed({
  get: () => (drill.value.attacks.cycle ?? []).map((s) => (s ? 's' : 'p')).join(''),
  set: (text: string) =>
    set('attacks', {
      cycle: [...text.toLowerCase()].filter((c) => 'ps'.includes(c)).map((c) => c === 's'),
    }),
})
const fromUp = computed(() =>
  drill.value.strokes.rule === 'fingers'
    ? 'Begin with the middle finger'
    : 'Begin with an upstroke',
)
</script>

<template>
  <fieldset>
    <legend>Attacks and strokes</legend>
    <ChoiceLine
      :model-value="drill.attacks.rule"
      name="Attacks"
      label="How notes start"
      :options="attackRules"
      stacked
      @update:model-value="(rule) => set('attacks', { rule })"
    />
    <label v-if="drill.attacks.rule === 'inTurn'" class="line">
      <span>Cycle <span class="small quiet">p picked, s slurred</span></span>
      <input v-model="cycle" class="text figures" size="9" aria-label="Cycle of attacks" />
    </label>
    <ChoiceLine
      v-if="drill.attacks.rule === 'inTurn'"
      :model-value="drill.attacks.each ?? ''"
      name="The cycle begins anew with each"
      :options="anews"
      @update:model-value="(each) => set('attacks', { each: each || undefined })"
    />
    <p v-if="faults.attacks" class="fault" role="alert">{{ faults.attacks }}</p>
    <ChoiceLine
      :model-value="drill.strokes.rule"
      name="Strokes"
      :options="strokeRules"
      stacked
      @update:model-value="(rule) => set('strokes', { rule })"
    />
    <SwitchLine
      v-if="drill.strokes.rule !== 'down'"
      :model-value="drill.strokes.fromUp"
      :name="fromUp"
      @update:model-value="(on) => set('strokes', { fromUp: on })"
    />
  </fieldset>
  <fieldset>
    <legend>Rhythm</legend>
    <ChoiceLine
      data-test="notes-per-beat"
      :model-value="drill.rhythm.notesPerBeat"
      name="Notes per beat"
      :options="divisions"
      @update:model-value="(notesPerBeat) => set('rhythm', { notesPerBeat })"
    />
    <p v-if="faults['rhythm.notesPerBeat']" class="fault" role="alert">
      {{ faults['rhythm.notesPerBeat'] }}
    </p>
    <NumberLine
      :model-value="drill.rhythm.beatsPerBar"
      name="Beats in a bar"
      :min="limits.Rhythm.beatsPerBar.min"
      :max="limits.Rhythm.beatsPerBar.max"
      :fault="faults['rhythm.beatsPerBar']"
      @update:model-value="(beatsPerBar) => set('rhythm', { beatsPerBar })"
    />
    <NumberLine
      :model-value="drill.rhythm.passes"
      name="Passes in a take"
      :min="limits.Rhythm.passes.min"
      :max="limits.Rhythm.passes.max"
      :fault="faults['rhythm.passes']"
      @update:model-value="(passes) => set('rhythm', { passes })"
    />
    <NumberLine
      :model-value="drill.rhythm.close"
      name="Notes added"
      label="Notes added (− left out)"
      :min="limits.Rhythm.close.min"
      :max="limits.Rhythm.close.max"
      :fault="faults['rhythm.close']"
      @update:model-value="(close) => set('rhythm', { close })"
    />
    <ChoiceLine
      data-test="swing"
      :model-value="drill.rhythm.swing ?? 0"
      name="Two notes share their time"
      :options="swings"
      @update:model-value="(swing) => set('rhythm', { swing: swing || undefined })"
    />
    <p v-if="faults['rhythm.swing']" class="fault" role="alert">{{ faults['rhythm.swing'] }}</p>
    <SwitchLine
      :model-value="drill.rhythm.free"
      name="As fast as even"
      about="The click only counts in"
      @update:model-value="(free) => set('rhythm', { free })"
    />
  </fieldset>
  <fieldset>
    <legend>Fingers</legend>
    <ChoiceLine
      :model-value="drill.fingering.stretch"
      name="Two whole steps"
      :options="stretches"
      @update:model-value="(stretch) => set('fingering', { stretch })"
    />
    <ChoiceLine
      :model-value="drill.fingering.tapFinger"
      name="Tap with"
      :options="tapFingers"
      @update:model-value="(tapFinger) => set('fingering', { tapFinger })"
    />
    <SwitchLine
      data-test="keep-down"
      :model-value="drill.fingering.keepDown"
      name="Fingers stay down going up"
      @update:model-value="(keepDown) => set('fingering', { keepDown })"
    />
    <NumberLine
      :model-value="drill.fingering.bendHeld ?? 0"
      name="Held bend"
      label="Held bend, semitones"
      :min="limits.Fingering.bendHeld.min"
      :max="limits.Fingering.bendHeld.max"
      :fault="faults['fingering.bendHeld']"
      @update:model-value="(bendHeld) => set('fingering', { bendHeld: bendHeld || undefined })"
    />
    <p class="small quiet">
      Fingers are proposed; press one on the neck to set it by hand.
      <el-button
        v-if="drill.fingering.own?.length"
        data-test="proposed-fingers"
        size="small"
        @click="set('fingering', { own: undefined })"
        >Use the proposed ones</el-button
      >
    </p>
  </fieldset>
</template>

<style scoped>
@import './form.css';
fieldset {
  padding-bottom: var(--s3);
}
legend {
  padding: 0 0 var(--s2);
  font-weight: 700;
}
</style>
