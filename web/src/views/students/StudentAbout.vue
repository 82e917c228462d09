<script setup lang="ts">
import { ElButton, ElCheckbox, ElMessage, ElOption, ElSelect } from 'element-plus'
import { onMounted, ref, watch } from 'vue'

import { answer, client, type AuditLine, type Group, type Pupil } from '../../api/client'
import { useAttempt } from '../../api/attempt'
import { usePages } from '../../api/pages'
import { allGroups } from '../../api/people'
import AuditList from '../../components/AuditList.vue'
import ConflictNote from '../../components/ConflictNote.vue'
import TextLine from '../../components/TextLine.vue'
import { dayOf } from '../../draw/words'
import { useStudent } from './student'

/** What the studio knows of a student, and what instructors did. */
const { pupil, isAway, reload, away } = useStudent()
const id = pupil.value.member.person.id
const groups = ref<Group[]>([])
const { problem, attempt } = useAttempt()
const lines = usePages<AuditLine>((after) =>
  answer(client.GET('/audit', { params: { query: { after, studentId: id } } })),
)
function known({ member: m }: Pupil) {
  return {
    name: m.person.name,
    email: m.email,
    note: m.note,
    consent: !!m.consentAt,
    consentBy: m.consentBy,
    level: m.level,
    groups: [...m.groups],
  }
}
const form = ref(known(pupil.value))
watch(pupil, (now) => {
  form.value = known(now)
  void attempt(lines.first)
})
onMounted(() =>
  attempt(async () => {
    groups.value = await allGroups()
    await lines.first()
  }),
)

function put(group: string, inside: boolean) {
  form.value.groups = form.value.groups.filter((g) => g !== group)
  if (inside) form.value.groups.push(group)
}
const save = () =>
  attempt(async () => {
    const params = {
      path: { personId: id },
      header: { 'If-Match': pupil.value.member.revision },
    }
    await answer(
      client.PUT('/people/{personId}', {
        params,
        body: { ...form.value, level: form.value.level || undefined },
      }),
    )
    await reload()
    ElMessage({ message: 'Saved' })
  })
/** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
async function settle(keepMine: boolean) {
  const mine = form.value
  await attempt(reload)
  if (!keepMine || problem.value) return
  form.value = mine
  await save()
}
</script>

<template>
  <div class="side-by-side">
    <ConflictNote v-if="problem" :problem="problem" @settle="settle" />
    <form class="sheet stack" @submit.prevent="save">
      <h2>About</h2>
      <TextLine v-model="form.name" name="Name" :max="100" />
      <TextLine v-model="form.email" name="E-mail" type="email" />
      <TextLine
        v-model="form.note"
        name="Notes"
        :rows="4"
        hint="For the instructors; the student does not see them"
      />
      <label class="level">
        <span>Level</span>
        <el-select v-model="form.level" clearable placeholder="not said">
          <el-option value="beginner" label="beginner" />
          <el-option value="intermediate" label="intermediate" />
          <el-option value="advanced" label="advanced" />
        </el-select>
      </label>
      <fieldset v-if="groups.length">
        <legend>Groups</legend>
        <el-checkbox
          v-for="g in groups"
          :key="g.id"
          :model-value="form.groups.includes(g.id)"
          :label="g.name"
          @update:model-value="(is) => put(g.id, !!is)"
        />
      </fieldset>
      <div>
        <el-checkbox
          v-model="form.consent"
          label="They, or a parent, agree to what the studio keeps"
        />
        <p v-if="pupil.member.consentAt" class="small quiet">
          noted {{ dayOf(pupil.member.consentAt) }}
        </p>
      </div>
      <TextLine
        v-if="form.consent"
        v-model="form.consentBy"
        name="Who agreed, and how"
        hint="As: her mother, on paper"
        :max="200"
      />
      <div class="row">
        <el-button type="primary" native-type="submit">Save</el-button>
        <a class="file" :href="`/api/people/${id}/archive.zip`" download>Everything in one file</a>
        <template v-if="!isAway">
          <el-button @click="away('archive')">Archive</el-button>
          <el-button @click="away('remove')">Remove</el-button>
        </template>
      </div>
    </form>
    <section v-if="lines.items.value.length" class="sheet stack">
      <h2 data-test="audit">What instructors did</h2>
      <AuditList :lines="lines.items.value" />
      <p v-if="lines.more.value">
        <el-button @click="attempt(lines.further)">Earlier</el-button>
      </p>
    </section>
  </div>
</template>

<style scoped>
.file {
  flex: 1 1 180px;
}
.level {
  display: grid;
  gap: var(--s1);
  max-width: 220px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
}
</style>
