<script setup lang="ts">
import { computed } from 'vue'

import type { Analysis, Figure, Gate } from '../api/client'
import { signed } from '../draw/words'
import FigureTile from './FigureTile.vue'

/** What else was measured; what rests on too few notes is left out. */
const props = defineProps<{ analysis: Analysis; gate: Gate }>()
const a = computed(() => props.analysis)

const resting = (f: Figure, of = 'notes') =>
  `give or take ${f.plusMinus.toFixed(1)}, ${f.count} ${of}`
const share = (n: number, of: number) => `${n} of ${of}`
const allowed = (percent: number) => (percent ? `; the gate allows ${percent} %` : '')
</script>

<template>
  <div class="figures-row">
    <FigureTile name="How much intervals vary" :value="a.timing.cvPercent.toFixed(1)" unit="% cv">
      The coefficient of variation: the standard deviation of the time between neighbouring notes,
      as a share of what it should be. It does not mind a tempo that wanders slowly; up to about 5 %
      sounds even.
    </FigureTile>
    <FigureTile
      v-if="a.pulse.clockMs && a.pulse.motorMs"
      name="The beat within"
      :value="a.pulse.clockMs.value.toFixed(1)"
      unit="ms"
      :also="resting(a.pulse.clockMs, 'intervals')"
    >
      How much the inner beat wavers from note to note, as opposed to the fingers: what neighbouring
      intervals have in common (Wing and Kristofferson, 1973). To get it down: play with the click,
      softly.
    </FigureTile>
    <FigureTile
      v-if="a.pulse.motorMs"
      name="The fingers"
      :value="a.pulse.motorMs.value.toFixed(1)"
      unit="ms"
      :also="resting(a.pulse.motorMs, 'intervals')"
    >
      How far single notes stray from the beat within: a note that is late once makes one interval
      longer and the next shorter. To get it down: slower, and the weakest pair alone.
    </FigureTile>
    <FigureTile
      v-if="a.pulse.npvi"
      name="Neighbouring intervals"
      :value="a.pulse.npvi.value.toFixed(1)"
      unit="nPVI"
      :also="resting(a.pulse.npvi, 'pairs')"
    >
      How much each interval differs from the next, in % of their mean (normalised pairwise
      variability index, Grabe and Low, 2002). Below 5 sounds even.
    </FigureTile>
    <FigureTile
      v-if="a.pulse.driftPercent"
      name="Tempo, end against start"
      :value="signed(a.pulse.driftPercent.value, 1)"
      unit="%"
      :also="resting(a.pulse.driftPercent)"
    >
      Whether the take speeds up (+) or slows down. Within 3 % it is hardly heard.
    </FigureTile>
    <FigureTile
      v-if="a.pulse.clickMs"
      name="Against the click"
      :value="signed(a.pulse.clickMs.value)"
      unit="ms"
      :also="resting(a.pulse.clickMs)"
    >
      Behind (+) or ahead of the metronome that is heard in the recording, on the beat.
    </FigureTile>
    <FigureTile
      v-if="a.slurs.levelDb"
      name="Slurred against picked"
      :value="signed(a.slurs.levelDb.value, 1)"
      unit="dB"
      :also="resting(a.slurs.levelDb, 'notes at least')"
    >
      How much softer slurred notes are than picked ones. Down to about −3 dB the ear takes them as
      one line. To bring them up: let the finger fall faster, pluck with the one that leaves.
    </FigureTile>
    <FigureTile
      v-if="a.connection.soundingPercent"
      name="Sounding"
      :value="a.connection.soundingPercent.value.toFixed(0)"
      unit="%"
      :also="`${share(a.connection.gaps, a.connection.gapsOf)} with a gap${allowed(gate.gapsPercent)}`"
    >
      The share of the way to the next note in which a note sounds. Gaps come from a finger that is
      lifted or put down early, or from the pick resting on the string.
    </FigureTile>
    <FigureTile
      v-if="a.connection.ringingOf >= 5"
      name="Strings left ringing"
      :value="share(a.connection.ringing, a.connection.ringingOf)"
      :also="`string changes that can be told${allowed(gate.ringingPercent)}`"
    >
      How often the string left behind is still heard under the next note. Thicker strings are
      damped with the palm, thinner ones with the underside of the first finger.
    </FigureTile>
    <FigureTile
      v-if="a.connection.bentOf >= 5"
      name="Dragged before pull-offs"
      :value="share(a.connection.bent, a.connection.bentOf)"
      :also="
        (a.connection.bendCents
          ? `${signed(a.connection.bendCents.value)} cents on average`
          : 'pull-offs') + allowed(gate.bentPercent)
      "
    >
      How often the pitch rises before a pull-off, because the string is pulled sideways. Hold it
      with the finger that stays.
    </FigureTile>
  </div>
</template>
