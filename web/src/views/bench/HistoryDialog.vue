<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { onMounted } from 'vue'

import { answer, client, type DrillFile, type Version } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import ProblemNote from '../../components/ProblemNote.vue'
import { count, momentOf, pathWords, patternWords } from '../../draw/words'

/** A drill's versions. Those with takes stay as they are for good. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: []; open: [file: DrillFile] }>()

const { problem, attempt } = useAttempt()
const {
  items: versions,
  more,
  first,
  further,
} = usePages<Version>((after) =>
  answer(
    client.GET('/drills/{drillId}/versions', {
      params: { path: { drillId: props.id }, query: { after } },
    }),
  ),
)
onMounted(() => attempt(first))
</script>

<template>
  <el-dialog
    data-test="history"
    :model-value="true"
    title="History"
    width="620"
    @close="emit('close')"
  >
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="small quiet">
      A version that was given to somebody stays as it is; a change becomes the next version.
      Students without a take get it at once, the others when you give it to them.
    </p>
    <ol>
      <li v-for="v in versions" :key="v.version" data-test="of-version" :data-of="v.version">
        <div class="grow">
          <b>Version {{ v.version }}</b> <span class="quiet small">{{ momentOf(v.savedAt) }}</span>
          <p class="small">{{ patternWords(v.file.drill) }}. {{ pathWords(v.file.drill) }}</p>
          <p class="small quiet">
            {{ count(v.takes, 'take')
            }}<template v-if="v.students.length"
              >; on the stand of {{ v.students.join(', ') }}</template
            >
          </p>
        </div>
        <el-button v-if="!v.odd" @click="emit('open', v.file)">Put on the bench</el-button>
        <p v-else class="small quiet">{{ v.odd }}</p>
      </li>
    </ol>
    <el-button v-if="more" @click="attempt(further)">Earlier versions</el-button>
  </el-dialog>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: var(--s2) 0 0;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s3) 0;
  border-top: var(--edge);
}
</style>
