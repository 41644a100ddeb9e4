import { useColorMode } from '@vueuse/core'

/** Light or dark, kept in the browser; starts with what the system prefers. */
export function useTheme() {
  const mode = useColorMode({ storageKey: 'oar-bench-theme' })
  const dark = computed(() => mode.value === 'dark')
  return { dark, toggle: () => (mode.value = dark.value ? 'light' : 'dark') }
}
