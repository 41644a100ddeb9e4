import type { OilLineType } from '../stores/editorUi'

/** Types of oil lines (ISO 1219-1), as people read them. */
export const oilLineTypes: Readonly<Record<OilLineType, string>> = {
  working: 'working line',
  pilot: 'pilot line',
  drain: 'drain line',
  hose: 'flexible hose',
}
