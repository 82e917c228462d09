<script setup lang="ts">
import { ElButton } from 'element-plus'

/** What can be said of the hand at any time while a take is played. */
const emit = defineEmits<{ tired: []; hurts: [] }>()
</script>

<template>
  <el-button @click="emit('tired')">Tired <kbd>t</kbd></el-button>
  <el-button @click="emit('hurts')">It hurts <kbd>h</kbd></el-button>
</template>
