<script setup lang="ts">
/** The page of whoever is not in the house yet: what it is on the left, the way in on the right. */
defineProps<{ title: string }>()
</script>

<template>
  <div class="door">
    <section class="about">
      <img src="/mark.svg" alt="" width="56" height="56" />
      <p class="name">Manudrill</p>
      <p class="lead">
        Fretting-hand drills, made by a few settings, played with a click, and heard note by note.
      </p>
      <p>Clean, even, relaxed, then fast.</p>
    </section>
    <section class="way">
      <h1>{{ title }}</h1>
      <slot />
      <p class="small quiet foot"><RouterLink to="/privacy">What is kept about you</RouterLink></p>
    </section>
  </div>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(300px, 5fr) 7fr;
}
.about {
  position: sticky; /* beside a list that is longer than the page */
  top: 0;
  height: 100vh;
  background: var(--wood);
  color: var(--wood-ink);
  padding: clamp(24px, 6vw, 88px);
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: var(--s4);
}
.name {
  font-size: clamp(38px, 4.4vw, 64px);
  font-weight: 700;
  line-height: 1.1;
  letter-spacing: -0.01em;
}
.lead {
  font-size: clamp(18px, 1.6vw, 24px);
  max-width: 24em;
}
.way {
  padding: clamp(24px, 6vw, 88px);
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: var(--s4);
  width: 100%;
  max-width: 640px;
}
.foot {
  margin-top: var(--s4);
}
@media (width < 760px) {
  .door {
    grid-template-columns: 1fr;
    grid-template-rows: auto 1fr;
  }
  .about {
    position: static;
    height: auto;
    padding: var(--s4) var(--s5);
    gap: var(--s2);
  }
  .about img,
  .about p:last-child {
    display: none;
  }
  .way {
    justify-content: flex-start;
    padding: var(--s5);
  }
}
</style>
