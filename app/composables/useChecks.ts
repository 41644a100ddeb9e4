/** The checks of a sheet, made by a worker: the page stays free, and what was found follows the sheet as soon as it is known. */
import { until } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { UnitSystem } from '@oar-bench/core/units/quantities'
import { changesSince } from '../utils/sheetChanges'
import { workerClient, type WorkerClient } from '../utils/workerClient'
import type { Checker } from '../workers/check.worker'

interface Asked {
  /** Which sheet it is, of all that may be opened. */
  readonly id: string
  readonly sheet: Sheet
  readonly schedule?: string
  /** In which values are written. */
  readonly system: UnitSystem
}

/** @param id of the sheet @param schedule id of its schedule @param system in which values are written */
export function useChecks(
  id: Readonly<Ref<string>>,
  sheet: Readonly<Ref<Sheet>>,
  schedule: Readonly<Ref<string | undefined>>,
  system: Readonly<Ref<UnitSystem>>,
) {
  const found = shallowRef<{ readonly of: Asked; readonly findings: readonly Finding[] }>()
  /** Why the checks could not be made. */
  const problem = ref('')
  /** The findings of the step before are valid until the next are there; those of another sheet are not. */
  const standing = computed(() => (found.value?.of.id === id.value ? found.value : undefined))
  const findings = computed(() => standing.value?.findings ?? [])
  /** Nothing is known of this sheet yet. */
  const pending = computed(() => !standing.value && !problem.value)
  const upToDate = computed(() => {
    const of = standing.value?.of
    return !!of && of.sheet === sheet.value && of.schedule === schedule.value && of.system === system.value
  })

  let checker: WorkerClient<Checker> | undefined
  /** The sheet that the worker has. */
  let sent: Sheet | undefined
  let working = false
  async function work(): Promise<void> {
    if (working) return
    working = true
    problem.value = ''
    try {
      while (!upToDate.value) {
        checker ??= workerClient<Checker>(
          new Worker(new URL('../workers/check.worker.ts', import.meta.url), { type: 'module' }),
          'they could not be started',
        )
        const of: Asked = { id: id.value, sheet: sheet.value, schedule: schedule.value, system: system.value }
        const asked = checker.remote.check(changesSince(sent, of.sheet), of.schedule, of.system)
        sent = of.sheet
        const list = await Promise.race([asked, checker.failed])
        // where nothing new was found nothing is redrawn
        const before = standing.value?.findings
        const same = !!before && JSON.stringify(before) === JSON.stringify(list)
        found.value = { of, findings: same ? before : list }
      }
    } catch (error) {
      problem.value = `The checks could not be made: ${(error as Error).message}.`
      checker?.worker.terminate()
      checker = sent = undefined
    } finally {
      working = false
    }
  }
  watch([id, sheet, schedule, system], () => void work(), { immediate: true })
  /** Resolves when the sheet as it is has been checked, or cannot be. */
  const whenDone = () => until(() => upToDate.value || problem.value !== '').toBe(true)
  return { findings, pending, upToDate, problem, whenDone }
}
