<script setup lang="ts">
/** Keys and what they do. */
defineProps<{ keys: { key: string; does: string }[] }>()
</script>

<template>
  <dl>
    <template v-for="s in keys" :key="s.key">
      <dt>
        <kbd>{{ s.key }}</kbd>
      </dt>
      <dd>{{ s.does }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: minmax(64px, auto) 1fr;
  gap: 4px var(--s3);
  margin: 0;
}
dd {
  margin: 0;
}
</style>
