import { createSharedComposable } from '@vueuse/core'
import { shallowRef } from 'vue'

/** What was typed into cards that stand by themselves: by card and variable. One for the whole application. */
export const useFreeCards = createSharedComposable(() =>
  shallowRef<Readonly<Record<string, Record<string, string>>>>({}),
)
