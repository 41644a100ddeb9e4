/** The sizes that follow from the brief of the open machine and the decisions on its sheet. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { SheetSizing } from '@oar-bench/core/sheet/schema'
import { agreement, applyAll, type NotApplied } from '@oar-bench/core/size/agreement'
import { sizeMachine, withSupply, type Solved } from '@oar-bench/core/size/graph'
import { useOwnSeries } from './ownSeries'
import { useSheetDocument } from './sheetDocument'

export const useMachineSizes = defineStore('machineSizes', () => {
  const sheetDocument = useSheetDocument()
  const ownSeries = useOwnSeries()
  const decisions = computed(() => sheetDocument.sheet.sizing)
  const sizing = computed(() =>
    sizeMachine(sheetDocument.brief, decisions.value, { series: ownSeries.inForce }),
  )
  /** The brief as it holds for this variant. */
  const brief = computed(() => withSupply(sheetDocument.brief, decisions.value))
  const agreeing = computed(() => agreement(sheetDocument.sheet, brief.value, sizing.value))

  function decide(change: Partial<SheetSizing>): void {
    sheetDocument.apply({ ...sheetDocument.sheet, sizing: { ...decisions.value, ...change } })
  }
  /** A record with an entry, or without it where it is taken back. */
  function withEntry<T>(
    record: Readonly<Record<string, T>>,
    key: string,
    entry: T | undefined,
  ): Record<string, T> {
    const next = { ...record }
    if (entry === undefined) delete next[key]
    else next[key] = entry
    return next
  }
  const withValue = (
    values: Readonly<Record<string, Record<string, string>>>,
    node: string,
    variable: string,
    text: string | undefined,
  ) => {
    const own = withEntry<string>(values[node] ?? {}, variable, text?.trim() || undefined)
    return withEntry<Record<string, string>>(values, node, Object.keys(own).length ? own : undefined)
  }
  /** Puts a value in the place of the one that comes by itself, or takes it back; what was solved with it goes as well. */
  function setValue(node: string, variable: string, text: string | undefined): void {
    const { values, solved } = decisions.value
    const own = solved[node] as { unknown: string; wanted: string } | undefined
    const loosens = own && (own.unknown === variable || (own.wanted === variable && !text))
    decide({
      values: withValue(values, node, variable, text),
      ...(loosens ? { solved: withEntry<{ unknown: string; wanted: string }>(solved, node, undefined) } : {}),
    })
    // what holds for all variants would stand again in its place
    const { brief } = sheetDocument
    if (!text && brief.cardValues[node]?.[variable])
      sheetDocument.setBrief({ ...brief, cardValues: withValue(brief.cardValues, node, variable, undefined) })
  }
  /** Solves an input for a wanted result, or stops doing so. */
  function solve(node: string, wish: { unknown: string; wanted: string; value: string } | undefined): void {
    const { values, solved } = decisions.value
    if (!wish)
      return decide({ solved: withEntry<{ unknown: string; wanted: string }>(solved, node, undefined) })
    const { unknown, wanted, value } = wish
    decide({
      values: withValue(withValue(values, node, wanted, value), node, unknown, undefined),
      solved: { ...solved, [node]: { unknown, wanted } },
    })
  }
  /** What a person gave for a variable, here or for all variants. */
  const writtenOf = (node: string, variable: string): string =>
    decisions.value.values[node]?.[variable] ?? sheetDocument.brief.cardValues[node]?.[variable] ?? ''
  const solvedOf = (node: string): Solved | undefined => decisions.value.solved[node]
  const setReason = (node: string, reason: string) =>
    decide({ reasons: withEntry<string>(decisions.value.reasons, node, reason.trim() || undefined) })
  function open(node: string): void {
    const { added, hidden } = decisions.value
    decide({
      hidden: hidden.filter((id) => id !== node),
      added: added.includes(node) ? added : [...added, node],
    })
  }
  function close(node: string): void {
    const { added, hidden } = decisions.value
    decide({
      added: added.filter((id) => id !== node),
      hidden: hidden.includes(node) ? hidden : [...hidden, node],
    })
  }
  /** What the last "apply all" could not apply, until something is applied again. */
  const notApplied = ref<readonly NotApplied[]>([])
  function applyEverything(): void {
    const { sheet, left } = applyAll(sheetDocument.sheet, brief.value, sizing.value)
    sheetDocument.apply(sheet)
    notApplied.value = left
  }
  return {
    decisions,
    sizing,
    brief,
    agreeing,
    decide,
    setValue,
    solve,
    writtenOf,
    solvedOf,
    setReason,
    open,
    close,
    applyEverything,
    notApplied,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useMachineSizes, import.meta.hot))
