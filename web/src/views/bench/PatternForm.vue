<script setup lang="ts">
import { computed } from 'vue'

import type { Bench, Pattern, PatternOf } from '../../api/client'
import { readList, readPairs, writeList, writePairs } from '../../bench/lists'
import ChoiceLine from './ChoiceLine.vue'
import { orders, slurs, tapOrders } from './choices'
import CombinationsField from './CombinationsField.vue'
import ListLine from './ListLine.vue'
import NumberLine from './NumberLine.vue'
import OrdersField from './OrdersField.vue'
import SwitchLine from './SwitchLine.vue'

/** What one pattern is made of; the family says which. */
const pattern = defineModel<Pattern>({ required: true })
defineProps<{ bench: Bench; fault?: string }>()

/** The pattern where it is of a kind, to be set by parts. */
function of<K extends Pattern['kind']>(kind: K) {
  return computed<PatternOf<K> | undefined>(() =>
    pattern.value.kind === kind ? (pattern.value as PatternOf<K>) : undefined,
  )
}
function set(parts: object) {
  pattern.value = { ...pattern.value, ...parts } as Pattern
}

const slurred = of('slurCombinations')
const trill = of('trill')
const open = of('openStrings')
const run = of('scaleRun')
const mixed = of('mixedRun')
const along = of('oneString')
const skip = of('skipArpeggio')
const triad = of('triad')
const tapping = of('tapping')
const hands = of('twoHands')
const shape = of('twoStringShape')
const chord = of('chordShape')
const ordered = computed(() =>
  'orders' in pattern.value ? (pattern.value as PatternOf<'fingerPerFret'>) : undefined,
)
/** Runs that are broken into groups. */
const sequenced = computed(() => run.value ?? mixed.value)
</script>

<template>
  <fieldset>
    <legend class="visually-hidden">Pattern</legend>
    <template v-if="slurred">
      <CombinationsField
        :model-value="slurred"
        :sets="bench.combinationSets"
        @update:model-value="(p) => (pattern = p)"
      />
      <ChoiceLine
        :model-value="slurred.slur"
        name="Slurs"
        :options="slurs"
        @update:model-value="(slur) => set({ slur })"
      />
    </template>
    <ListLine
      v-if="trill"
      name="Fingers"
      hint="first one first, 0 open"
      :text="writeList(trill.fingers)"
      @typed="(t) => set({ fingers: readList(t) })"
    />
    <ListLine
      v-if="open"
      name="Notes"
      hint="fingers, 0 open"
      :text="writeList(open.fingers)"
      @typed="(t) => set({ fingers: readList(t) })"
    />
    <OrdersField
      v-if="ordered"
      :model-value="ordered.orders"
      :all="bench.fingerOrders"
      @update:model-value="(list) => set({ orders: list })"
    />
    <ListLine
      v-if="run"
      name="Notes a string"
      hint="in turn"
      :text="writeList(run.perString)"
      @typed="(t) => set({ perString: readList(t) })"
    />
    <template v-if="mixed">
      <NumberLine
        :model-value="mixed.slurred"
        name="Slurred on one string"
        :min="1"
        :max="4"
        @update:model-value="(slurred) => set({ slurred })"
      />
      <NumberLine
        :model-value="mixed.picked"
        name="Picked on the next"
        :min="1"
        :max="4"
        @update:model-value="(picked) => set({ picked })"
      />
    </template>
    <ListLine
      v-if="along"
      name="Cell"
      hint="degrees from 0, o open"
      :text="writeList(along.steps)"
      @typed="(t) => set({ steps: readList(t) })"
    />
    <template v-if="skip">
      <NumberLine
        :model-value="skip.perString"
        name="Notes a string"
        :min="1"
        :max="4"
        @update:model-value="(perString) => set({ perString })"
      />
      <NumberLine
        :model-value="skip.extra"
        name="Extra notes on top"
        :min="0"
        :max="3"
        @update:model-value="(extra) => set({ extra })"
      />
    </template>
    <ListLine
      v-if="triad"
      name="Chord notes"
      hint="0 root, 1 third, 2 fifth"
      :text="writeList(triad.voices)"
      @typed="(t) => set({ voices: readList(t) })"
    />
    <template v-if="tapping">
      <NumberLine
        :model-value="tapping.low"
        name="Lower finger"
        label="Lower finger (0 open)"
        :min="0"
        :max="4"
        @update:model-value="(low) => set({ low })"
      />
      <NumberLine
        :model-value="tapping.middle"
        name="Middle finger"
        :min="1"
        :max="4"
        @update:model-value="(middle) => set({ middle })"
      />
      <NumberLine
        :model-value="tapping.tapAt"
        name="Tap, frets above"
        :min="1"
        :max="24"
        @update:model-value="(tapAt) => set({ tapAt })"
      />
      <ChoiceLine
        :model-value="tapping.order"
        name="Order of the taps"
        label="Order"
        :options="tapOrders"
        stacked
        @update:model-value="(order) => set({ order })"
      />
    </template>
    <template v-if="hands">
      <ListLine
        name="Fretted"
        hint="frets above, a string each"
        :text="writeList(hands.fretted)"
        @typed="(t) => set({ fretted: readList(t) })"
      />
      <ListLine
        name="Tapped"
        hint="likewise"
        :text="writeList(hands.tapped)"
        @typed="(t) => set({ tapped: readList(t) })"
      />
      <ListLine
        name="Moves"
        hint="fretting:tapping, frets"
        :text="writePairs(hands.moves.map((m) => [m.fretting, m.tapping]))"
        @typed="
          (t) => set({ moves: readPairs(t).map(([fretting, tapping]) => ({ fretting, tapping })) })
        "
      />
    </template>
    <template v-if="shape">
      <ListLine
        name="First string"
        hint="frets above"
        :text="writeList(shape.lower)"
        @typed="(t) => set({ lower: readList(t) })"
      />
      <ListLine
        name="Second string"
        hint="frets above"
        :text="writeList(shape.higher)"
        @typed="(t) => set({ higher: readList(t) })"
      />
    </template>
    <template v-if="chord">
      <ListLine
        name="Shape"
        hint="finger:fret, a string each"
        :text="writePairs(chord.shape.map((h) => [h.finger, h.fret]))"
        @typed="(t) => set({ shape: readPairs(t).map(([finger, fret]) => ({ finger, fret })) })"
      />
      <NumberLine
        :model-value="chord.leaper"
        name="Leaping finger"
        :min="1"
        :max="4"
        @update:model-value="(leaper) => set({ leaper })"
      />
      <ListLine
        name="Leaps"
        hint="string:fret"
        :text="writePairs(chord.leaps.map((l) => [l.string + 1, l.fret]))"
        @typed="
          (t) =>
            set({ leaps: readPairs(t).map(([string, fret]) => ({ string: string - 1, fret })) })
        "
      />
    </template>
    <ChoiceLine
      v-if="'order' in pattern && !tapping"
      :model-value="(pattern as PatternOf<'scaleRun'>).order"
      name="Order"
      :options="orders"
      @update:model-value="(order) => set({ order })"
    />
    <template v-if="sequenced">
      <NumberLine
        :model-value="sequenced.sequence.length"
        name="Groups of notes"
        label="In groups of (0 whole)"
        :min="0"
        :max="12"
        @update:model-value="
          (length) =>
            set({ sequence: { length, advance: Math.max(1, sequenced!.sequence.advance) } })
        "
      />
      <NumberLine
        v-if="sequenced.sequence.length > 0"
        :model-value="sequenced.sequence.advance"
        name="Groups start apart by"
        :min="1"
        :max="12"
        @update:model-value="
          (advance) => set({ sequence: { length: sequenced!.sequence.length, advance } })
        "
      />
    </template>
    <SwitchLine
      v-if="run"
      :model-value="run.topTapped"
      name="Top note of each string tapped"
      @update:model-value="(topTapped) => set({ topTapped })"
    />
    <slot />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </fieldset>
</template>

<style scoped>
@import './form.css';
</style>
