<script setup lang="ts">
/** What is said wherever pain is reported. */
</script>

<template>
  <span
    >Pain, numbness or tingling is no part of practice: rest the hand. If it stays, see a doctor or
    hand therapist. Manudrill gives no medical advice.</span
  >
</template>
