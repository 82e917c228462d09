<script setup lang="ts">
import { computed, ref } from 'vue'

import { readList, writeList } from '../../bench/lists'

/** One or more orders of the fingers: chosen from the 24, or typed. */
const orders = defineModel<number[][]>({ required: true })
const props = defineProps<{ all: number[][] }>()

const typing = ref('')
const chosen = computed(() => new Set(orders.value.map((o) => o.join('-'))))
const grouped = computed(() => [1, 2, 3, 4].map((first) => props.all.filter((o) => o[0] === first)))

function toggle(order: number[]) {
  const key = order.join('-')
  const without = orders.value.filter((o) => o.join('-') !== key)
  orders.value = without.length < orders.value.length ? without : [...orders.value, order]
}
/** Taken alone: a double click, or shift and click. */
function only(order: number[]) {
  orders.value = [order]
}
function add() {
  const order = readList(typing.value).value
  if (order.length > 1) toggle(order)
  typing.value = ''
}
const others = computed(() => {
  const known = new Set(props.all.map((o) => o.join('-')))
  return orders.value.filter((o) => !known.has(o.join('-')))
})
</script>

<template>
  <div class="orders" role="group" aria-label="Finger orders">
    <span class="small quiet">
      Orders, {{ orders.length }} chosen. Double click chooses one alone.
    </span>
    <div v-for="(group, g) in grouped" :key="g" class="chips">
      <button
        v-for="o in group"
        :key="o.join('')"
        type="button"
        class="chip figures"
        :aria-pressed="chosen.has(o.join('-'))"
        :aria-label="`Order ${o.join('-')}`"
        @click="$event.shiftKey ? only(o) : toggle(o)"
        @dblclick="only(o)"
      >
        {{ o.join('') }}
      </button>
    </div>
    <div v-if="others.length" class="chips">
      <button
        v-for="o in others"
        :key="o.join('')"
        type="button"
        class="chip figures"
        aria-pressed="true"
        :aria-label="`Order ${o.join('-')}`"
        @click="toggle(o)"
      >
        {{ writeList(o) }}
      </button>
    </div>
    <div class="row">
      <input
        v-model="typing"
        class="text figures"
        size="9"
        placeholder="1 2 4"
        aria-label="Add an order"
        @keydown.enter.prevent="add"
        @blur="add"
      />
      <button type="button" class="chip" @click="orders = all">All 24</button>
      <button type="button" class="chip" @click="orders = [all[0] ?? [1, 2, 3, 4]]">
        Only 1234
      </button>
    </div>
  </div>
</template>

<style scoped>
@import './form.css';
.orders {
  display: grid;
  gap: 6px;
}
.orders .chip {
  min-width: 46px;
}
.row {
  gap: 6px;
}
</style>
