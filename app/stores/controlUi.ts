/** What is selected and shown of the control: a path, a contact in it, the drawing of all paths. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { drawControl } from '@oar-bench/core/control/drawing'
import { useSheetDocument } from './sheetDocument'

/** A contact of a path, by its number from the beginning. */
export interface ContactPlace {
  readonly rung: string
  readonly index: number
}

/** What the control step shows. */
export type ControlView = 'paths' | 'steps' | 'proofs'

export const useControlUi = defineStore('controlUi', () => {
  const sheetDocument = useSheetDocument()
  const view = ref<ControlView>('paths')
  const rung = ref<string>()
  const contact = shallowRef<ContactPlace>()
  const drawing = computed(() => drawControl(sheetDocument.sheet))

  function selectRung(id: string | undefined): void {
    rung.value = id
    contact.value = undefined
  }
  function selectContact(place: ContactPlace): void {
    rung.value = place.rung
    contact.value = place
  }
  watch(
    () => sheetDocument.sheet.control.rungs,
    (rungs) => {
      if (!rungs.some((r) => r.id === rung.value)) selectRung(undefined)
    },
  )
  return { view, rung, contact, drawing, selectRung, selectContact }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useControlUi, import.meta.hot))
