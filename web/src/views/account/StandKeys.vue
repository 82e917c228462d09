<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { ref } from 'vue'

import { taught, type Deed } from '../routine/keys'

/** Keys of one's own at the stand: a pedal that acts as a keyboard is taught by pressing it. */
const deeds: { deed: Deed; name: string; usual: string }[] = [
  { deed: 'go', name: 'Start and hold', usual: 'space, enter' },
  { deed: 'next', name: 'Next', usual: 'n' },
  { deed: 'repeat', name: 'Again', usual: 'r' },
  { deed: 'skip', name: 'Next item', usual: '→' },
  { deed: 'back', name: 'Item before', usual: '←' },
  { deed: 'hear', name: 'Hear the drill', usual: 'l' },
  { deed: 'faster', name: 'Faster', usual: '↑' },
  { deed: 'slower', name: 'Slower', usual: '↓' },
  { deed: 'tired', name: 'Tired', usual: 't' },
  { deed: 'hurts', name: 'It hurts', usual: 'h' },
]
const learning = ref<Deed>()

onKeyStroke(true, (event) => {
  const deed = learning.value
  if (!deed) return
  event.preventDefault()
  if (event.key === 'Tab' || event.key === 'Escape') return (learning.value = undefined)
  taught.value = { ...taught.value, [event.key]: deed }
  learning.value = undefined
})
const keysOf = (deed: Deed) => Object.keys(taught.value).filter((k) => taught.value[k] === deed)
const named = (key: string) => (key === ' ' ? 'space' : key)
function forget(deed: Deed) {
  taught.value = Object.fromEntries(Object.entries(taught.value).filter(([, d]) => d !== deed))
}
</script>

<template>
  <section class="sheet stack">
    <h2>Keys at the stand, on this device</h2>
    <p>A pedal that acts as a keyboard works like one: choose what it does, then press it.</p>
    <ul>
      <li v-for="d in deeds" :key="d.deed">
        <span class="grow">{{ d.name }}</span>
        <kbd>{{ d.usual }}</kbd>
        <kbd v-for="k in keysOf(d.deed)" :key="k">{{ named(k) }}</kbd>
        <el-button v-if="keysOf(d.deed).length" size="small" @click="forget(d.deed)"
          >Forget</el-button
        >
        <el-button size="small" :aria-label="`Teach a key: ${d.name}`" @click="learning = d.deed">{{
          learning === d.deed ? 'Press it now' : 'Teach a key'
        }}</el-button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: 4px 0;
  border-bottom: var(--edge);
}
</style>
