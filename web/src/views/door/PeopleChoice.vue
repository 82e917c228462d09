<script setup lang="ts">
import { computed } from 'vue'

import type { Person } from '../../api/client'
import { teaches } from '../../api/people'

const props = defineProps<{ people: Person[] }>()
const emit = defineEmits<{ choose: [person: Person] }>()
const sides = computed(() => [
  {
    name: 'Instructor',
    does: 'makes drills, follows students',
    people: props.people.filter(teaches),
  },
  {
    name: 'Student',
    does: 'practises and records',
    people: props.people.filter((p) => !teaches(p)),
  },
])
</script>

<template>
  <div class="choose">
    <template v-for="s in sides" :key="s.name">
      <h2>{{ s.name }}</h2>
      <ul>
        <li v-for="p in s.people" :key="p.id">
          <button data-test="person" :data-of="p.name" type="button" @click="emit('choose', p)">
            <b>{{ p.name }}</b><span>{{ s.does }}</span>
          </button>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.choose {
  display: grid;
  gap: var(--s2);
}
h2 {
  margin-top: var(--s2);
  font-size: var(--t-small);
  color: var(--ink-2);
}
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
button {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 var(--s4);
  padding: var(--s3) var(--s4);
  font: inherit;
  color: inherit;
  text-align: left;
  background: var(--sheet);
  border: var(--edge);
  border-radius: var(--round);
  cursor: pointer;
}
button:hover {
  border-color: var(--ink);
}
button b {
  font-size: var(--t-lead);
}
button span {
  color: var(--ink-2);
  font-size: var(--t-small);
}
</style>
