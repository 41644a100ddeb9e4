import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { useSheetChecks } from '../stores/sheetChecks'

/** What the checks find at a component, pipe or junction. @param id of it */
export function useFindingsAt(id: MaybeRefOrGetter<string>) {
  const checks = useSheetChecks()
  const here = computed(() =>
    checks.findings.filter(({ location: { component, pipe, junction } }) =>
      [component, pipe, junction].includes(toValue(id)),
    ),
  )
  /** What is no problem of a single value. */
  const general = computed(() => here.value.filter((f) => !f.location.parameter))
  const problemOf = (name: string) => here.value.find((f) => f.location.parameter === name)?.message
  return { general, problemOf }
}
