/** The components, pipes and junctions that are selected on the sheet. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { useSheetDocument } from './sheetDocument'

export const useSelection = defineStore('selection', () => {
  const sheetDocument = useSheetDocument()
  const ids = shallowRef<ReadonlySet<string>>(new Set<string>())
  const select = (list: Iterable<string>) => (ids.value = new Set(list))

  // what an edit removed is no longer selected; on another sheet nothing is
  watch(
    () => sheetDocument.sheetId,
    () => select([]),
    { flush: 'sync' },
  )
  watch(
    () => sheetDocument.sheet,
    ({ components, junctions, pipes, control }) => {
      const present = new Set(
        [...components, ...junctions, ...pipes, ...control.devices, ...control.sequences].map(
          (item) => item.id,
        ),
      )
      const left = [...ids.value].filter((id) => present.has(id))
      if (left.length !== ids.value.size) select(left)
    },
    { flush: 'sync' },
  )

  /** Devices of the control. */
  const devices = computed(() => sheetDocument.sheet.control.devices.filter((d) => ids.value.has(d.id)))
  const components = computed(() => sheetDocument.sheet.components.filter((c) => ids.value.has(c.id)))
  const pipes = computed(() => sheetDocument.sheet.pipes.filter((p) => ids.value.has(p.id)))
  const junctions = computed(() => sheetDocument.sheet.junctions.filter((j) => ids.value.has(j.id)))
  /** The only thing that is selected. */
  const onlyId = computed(() => (ids.value.size === 1 ? [...ids.value][0] : undefined))
  return { ids, select, devices, components, pipes, junctions, onlyId }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useSelection, import.meta.hot))
