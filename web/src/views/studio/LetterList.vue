<script setup lang="ts">
import { ElButton } from 'element-plus'
import { onMounted } from 'vue'

import { answer, client, type Letter } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import ProblemNote from '../../components/ProblemNote.vue'
import { momentOf } from '../../draw/words'

/** Letters to people of the studio: where none are sent, the owner passes their links on. */
const { problem, attempt } = useAttempt()
const letters = usePages<Letter>((after) =>
  answer(client.GET('/letters', { params: { query: { after } } })),
)
onMounted(() => attempt(letters.first))

/** The whole address of the link in a letter, which a server that was not told its own leaves out. */
function linkOf(l: Letter): string | undefined {
  const path = /\/reset#\S+/.exec(l.text)?.[0]
  return path && location.origin + path
}

function fate(l: Letter): string {
  if (l.sentAt) return `sent ${momentOf(l.sentAt)}`
  return l.failure ? `could not be sent: ${l.failure}` : 'not sent: pass the link on yourself'
}
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <p v-if="!letters.items.value.length" class="quiet">
    None were written. Whoever forgets a password and has an e-mail address asks for one at the
    door. Where Manudrill sends no mail, it stays here for you to pass on.
  </p>
  <details v-for="l in letters.items.value" :key="l.id">
    <summary>
      {{ momentOf(l.madeAt) }} to {{ l.recipient }}: {{ l.subject }}
      <span class="quiet small">({{ fate(l) }})</span>
    </summary>
    <p v-if="l.text" class="text">{{ l.text }}</p>
    <p v-if="linkOf(l)">
      The link to pass on: <b class="link">{{ linkOf(l) }}</b>
    </p>
  </details>
  <p v-if="letters.more.value">
    <el-button @click="attempt(letters.further)">Earlier</el-button>
  </p>
</template>

<style scoped>
.link {
  overflow-wrap: anywhere;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  padding: var(--s2) 0 var(--s3);
}
</style>
