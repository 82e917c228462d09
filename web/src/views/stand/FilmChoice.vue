<script setup lang="ts">
import { filming } from '../../audio/camera'
import SwitchLine from '../bench/SwitchLine.vue'

/** The instructor asks for the hands on video; the student decides. */
</script>

<template>
  <div data-test="film-asked" class="film">
    <p>
      Your instructor would like to see your hands with this drill. They are filmed while you play,
      without sound, five minutes at the most; only you and your instructors see it, and either of
      you can delete it. It is kept no longer than your studio keeps recordings.
    </p>
    <SwitchLine v-model="filming" name="Film my hands on this device" />
  </div>
</template>

<style scoped>
.film {
  display: grid;
  gap: var(--s2);
  border-left: 6px solid var(--ink);
  padding-left: var(--s3);
  max-width: 44em;
}
</style>
