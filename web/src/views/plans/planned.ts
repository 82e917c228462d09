import { useDebounceFn, useEventListener } from '@vueuse/core'
import { ElMessage } from 'element-plus'
import { computed, onMounted, ref } from 'vue'

import { answer, client, type Plan, type PlanSettings, type SavedPlan } from '../../api/client'
import { useAttempt } from '../../api/attempt'

/** A student's plan while it is looked at and changed: nothing is kept before it is said. */
export function usePlan(studentId: string) {
  const params = { path: { studentId } }
  const saved = ref<SavedPlan>()
  const settings = ref<PlanSettings>()
  const plan = ref<Plan>()
  /** What was there before each change, the latest last. */
  const past = ref<{ settings: PlanSettings; plan: Plan }[]>([])
  const { problem, busy, attempt, once } = useAttempt()
  const changed = computed(
    () =>
      JSON.stringify([settings.value, plan.value]) !==
      JSON.stringify([saved.value?.settings, saved.value?.plan]),
  )
  const isNew = computed(() => saved.value?.revision === 0)

  function show(s: SavedPlan) {
    saved.value = s
    settings.value = s.settings
    plan.value = s.plan
    past.value = []
  }
  const load = async () => show(await answer(client.GET('/students/{studentId}/plan', { params })))
  onMounted(() => attempt(load))

  function remember() {
    if (settings.value && plan.value)
      past.value.push({ settings: settings.value, plan: plan.value })
  }
  /** By its rules, what was changed by hand staying. An answer that is late is no answer. */
  let asked = 0
  async function lay() {
    const mine = ++asked
    const body = { settings: settings.value!, plan: plan.value }
    await attempt(async () => {
      const made = await answer(client.POST('/students/{studentId}/plan/made', { params, body }))
      if (mine === asked) plan.value = made
    })
  }
  const layLater = useDebounceFn(lay, 300)
  function set(to: PlanSettings) {
    remember()
    settings.value = to
    void layLater()
  }
  /** Changed by hand; a day that is given back to the rules is laid out anew. */
  async function board(to: Plan) {
    const byHand = (p: Plan) => p.weeks.flatMap((w) => w.days).filter((d) => d.byHand).length
    const fewer = byHand(to) < byHand(plan.value!)
    remember()
    plan.value = to
    if (fewer) await lay()
  }
  function undo() {
    const before = past.value.pop()
    if (!before) return
    asked++
    settings.value = before.settings
    plan.value = before.plan
  }

  const keep = (revision = saved.value?.revision ?? 0) =>
    once(async () => {
      const body = { settings: settings.value!, plan: plan.value }
      const header = { 'If-Match': revision }
      show(
        await answer(
          client.PUT('/students/{studentId}/plan', { params: { ...params, header }, body }),
        ),
      )
      ElMessage({ message: 'The plan is kept.' })
    })
  useEventListener('keydown', (e) => {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 's') return
    e.preventDefault() // the page itself is nothing to save
    if (saved.value && (changed.value || isNew.value)) void keep()
  })
  /** Somebody has changed it meanwhile: theirs is shown instead, or one's own is kept. */
  async function settle(keepMine: boolean) {
    const mine = { settings: settings.value!, plan: plan.value! }
    await attempt(load)
    if (!keepMine || problem.value) return
    settings.value = mine.settings
    plan.value = mine.plan
    await keep()
  }
  return {
    ...{ saved, settings, plan, past, busy, problem, changed, isNew },
    ...{ attempt, load, set, board, undo, keep, settle },
  }
}
