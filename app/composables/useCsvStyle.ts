import { createSharedComposable } from '@vueuse/core'
import type { CsvStyle } from '@oar-bench/core/formats/csv'
import { useSetting } from './useSetting'

const styles = {
  'comma-point': { separator: ',', decimal: '.' },
  'semicolon-comma': { separator: ';', decimal: ',' },
  'semicolon-point': { separator: ';', decimal: '.' },
  'tab-point': { separator: '\t', decimal: '.' },
  'tab-comma': { separator: '\t', decimal: ',' },
} as const satisfies Record<string, CsvStyle>
export type CsvStyleName = keyof typeof styles

export const csvStyleLabels: Readonly<Record<CsvStyleName, string>> = {
  'comma-point': 'a,b and 1.5',
  'semicolon-comma': 'a;b and 1,5',
  'semicolon-point': 'a;b and 1.5',
  'tab-point': 'tabs and 1.5',
  'tab-comma': 'tabs and 1,5',
}

/** How the person's spreadsheet wants its CSV. */
export const useCsvStyleName = createSharedComposable(() => useSetting<CsvStyleName>('csv', 'comma-point'))
export const useCsvStyle = () => {
  const name = useCsvStyleName()
  return computed<CsvStyle>(() => styles[name.value])
}
