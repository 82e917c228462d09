<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'

import { leave, person } from './session'

const route = useRoute()
const router = useRouter()

const places = computed(() => {
  if (!person.value) return []
  return person.value.role === 'instructor'
    ? [
        { to: '/drills', text: 'Drills' },
        { to: '/students', text: 'Students' },
      ]
    : [{ to: '/practice', text: 'Practice' }]
})

const atDoor = computed(() => route.path === '/')
const atStand = computed(() => route.path.startsWith('/stand/'))

async function goOut() {
  await leave()
  await router.push('/')
}
</script>

<template>
  <div class="app" :class="{ 'stand-light': atStand }">
    <header v-if="!atDoor" class="bar">
      <RouterLink :to="places[0]?.to ?? '/'" class="mark">
        <img src="/mark.svg" alt="" width="26" height="26" />Manudrill
      </RouterLink>
      <nav aria-label="Main">
        <RouterLink
          v-for="p in places"
          :key="p.to"
          :to="p.to"
          :class="{ here: route.path.startsWith(p.to) }"
          >{{ p.text }}</RouterLink
        >
      </nav>
      <div v-if="person" class="who">
        <span>{{ person.name }}<span v-if="person.demo" class="demo">demo</span></span>
        <button type="button" @click="goOut">Leave</button>
      </div>
    </header>
    <main :class="{ door: atDoor }">
      <RouterView :key="route.path" />
    </main>
    <footer v-if="!atDoor && !atStand" class="small quiet">
      Clean, even, relaxed, then fast. A tired muscle is normal: rest and shake out. Pain, numbness
      or tingling: stop, and see a doctor or hand therapist if it stays. Manudrill gives no medical
      advice.
    </footer>
  </div>
</template>

<style scoped>
.app {
  min-height: 100vh;
  display: flex;
  flex-direction: column;
  background: var(--ground);
  color: var(--ink);
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s5);
  padding: var(--s2) max(var(--s5), (100% - 1560px) / 2 + var(--s5));
  background: var(--sheet);
  border-bottom: var(--edge);
}
.mark {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-weight: 700;
  font-size: var(--t-lead);
  letter-spacing: -0.01em;
  text-decoration: none;
}
nav {
  display: flex;
  gap: var(--s1);
  flex: 1;
}
nav a {
  padding: 6px 12px;
  text-decoration: none;
  font-weight: 600;
  color: var(--ink-2);
  border-bottom: 3px solid transparent;
}
nav a.here {
  color: var(--ink);
  border-bottom-color: var(--ink);
}
.who {
  display: flex;
  align-items: center;
  gap: var(--s3);
}
.who button {
  border: 0;
  background: none;
  color: var(--ink-2);
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  padding: 6px 0;
}
.demo {
  margin-left: var(--s2);
  padding: 1px 7px;
  border: 1px solid var(--line-2);
  border-radius: 99px;
  font-size: 12px;
  color: var(--ink-2);
}
main {
  flex: 1;
  width: 100%;
  max-width: 1560px;
  margin: 0 auto;
  padding: var(--s5);
}
main.door {
  max-width: none;
  padding: 0;
  display: grid;
}
@media print {
  .bar,
  footer {
    display: none !important;
  }
  .app {
    background: #fff;
  }
  main {
    padding: 0;
    max-width: none;
  }
}
footer {
  padding: var(--s4) var(--s5) var(--s5);
  max-width: 1560px;
  width: 100%;
  margin: 0 auto;
}
@media (width < 600px) {
  .bar {
    padding: var(--s2) var(--s4);
  }
  .who {
    font-size: var(--t-small);
  }
  nav {
    justify-content: flex-end;
  }
  .who {
    width: 100%;
    justify-content: space-between;
  }
  main {
    padding: var(--s4);
  }
  footer {
    padding: var(--s4);
  }
}
</style>
