import { createSharedComposable, useColorMode } from '@vueuse/core'

/** Light or dark, kept in the browser; starts with what the system prefers. */
export const useTheme = createSharedComposable(() => {
  // to switch transitions off for the change, the style of every element on the page would be computed twice
  const mode = useColorMode({ storageKey: 'oar-bench-theme', disableTransition: false })
  const dark = computed(() => mode.value === 'dark')
  return { dark, toggle: () => (mode.value = dark.value ? 'light' : 'dark') }
})
