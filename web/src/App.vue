<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'

import { teaches } from './api/people'
import ShortcutSheet from './components/ShortcutSheet.vue'
import { useGoTo, type Page } from './goto'
import { usePreferences } from './preferences'
import { here, homeOf, leave, person } from './session'

const route = useRoute()
const router = useRouter()

const pages = computed<Page[]>(() => {
  if (!person.value) return []
  return teaches(person.value)
    ? [
        { to: '/drills', text: 'Drills', key: 'd' },
        { to: '/students', text: 'Students', key: 's' },
        { to: '/review', text: 'Review', key: 'r' },
        { to: '/studio', text: 'Studio', key: 'o' },
        { to: '/metronome', text: 'Metronome', key: 'm' },
      ]
    : [
        { to: '/practice', text: 'Practice', key: 'p' },
        { to: '/mine', text: 'My progress', key: 'y' },
        { to: '/metronome', text: 'Metronome', key: 'm' },
      ]
})

const bare = computed(() => route.meta.bare)
const atStand = computed(() => /^\/(stand|routines)\//.test(route.path))
usePreferences(() => atStand.value)
useGoTo(
  () => pages.value,
  (to) => void router.push(to),
  () => atStand.value,
)

async function goOut() {
  await leave()
  await router.push('/')
}
</script>

<template>
  <div class="app">
    <header v-if="!bare" class="bar">
      <RouterLink :to="person ? homeOf(person) : '/'" class="mark">
        <img src="/mark.svg" alt="" width="26" height="26" />Manudrill
      </RouterLink>
      <nav aria-label="Main">
        <RouterLink
          v-for="p in pages"
          :key="p.to"
          data-test="goto"
          :data-of="p.to"
          :to="p.to"
          :class="{ here: route.path.startsWith(p.to) }"
          :title="`${p.text}: G, then ${p.key.toUpperCase()}`"
          :aria-keyshortcuts="`g ${p.key}`"
          >{{ p.text }}</RouterLink
        >
      </nav>
      <div v-if="person" class="who">
        <span v-if="person.demo" class="demo" title="Anybody may be anybody here">demo</span>
        <RouterLink to="/me" :title="`Settings of ${person.name}, at ${here?.studio}`">{{
          person.name
        }}</RouterLink>
        <button data-test="leave" type="button" class="link" @click="goOut">Leave</button>
      </div>
    </header>
    <ShortcutSheet v-if="person" :pages="pages" />
    <main :class="{ bare }">
      <RouterView :key="route.path" />
    </main>
    <footer v-if="!bare && !atStand" class="small quiet">
      Clean, even, relaxed, then fast. A tired muscle is normal: rest and shake out. Pain, numbness
      or tingling: stop, and see a doctor or hand therapist if it stays. Manudrill gives no medical
      advice. <RouterLink to="/privacy" class="whole">What is kept</RouterLink>
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
  flex-wrap: wrap;
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
.demo {
  padding: 1px 7px;
  border: 1px solid var(--line-2);
  border-radius: 99px;
  font-size: var(--t-small);
  color: var(--ink-2);
}
main {
  flex: 1;
  width: 100%;
  max-width: 1560px;
  margin: 0 auto;
  padding: var(--s5);
}
main.bare {
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
    flex-basis: 100%;
    justify-content: space-between;
  }
  nav a {
    padding: 6px 4px;
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
