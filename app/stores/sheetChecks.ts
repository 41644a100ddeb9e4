/** What the design checks find on the sheet that is open. */
import { acceptHMRUpdate, defineStore, storeToRefs } from 'pinia'
import { computed } from 'vue'
import { useChecks } from '../composables/useChecks'
import { useUnits } from '../composables/useUnits'
import { useSheetDocument } from './sheetDocument'

export const useSheetChecks = defineStore('sheetChecks', () => {
  const { sheetId, sheet, scheduleId } = storeToRefs(useSheetDocument())
  const checks = useChecks(sheetId, sheet, scheduleId, useUnits().system)
  const findings = computed(() => checks.findings.value.filter((f) => !f.accepted))
  /** Warnings that somebody accepts, each with the reason. */
  const accepted = computed(() => checks.findings.value.filter((f) => f.accepted))
  const errors = computed(() => findings.value.filter((f) => f.severity === 'error'))
  /** What is only not drawn yet, and what is wrong whatever comes. */
  const incomplete = computed(() => findings.value.filter((f) => f.incomplete))
  const faults = computed(() => findings.value.filter((f) => !f.incomplete))
  return {
    findings,
    incomplete,
    faults,
    accepted,
    errors,
    upToDate: checks.upToDate,
    pending: checks.pending,
    problem: checks.problem,
    whenDone: checks.whenDone,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useSheetChecks, import.meta.hot))
