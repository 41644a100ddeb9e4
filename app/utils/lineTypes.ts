import type { Pipe } from '@oar-bench/core/sheet/schema'
import type { OilLineType } from '../stores/editorUi'

/** Types of oil lines (ISO 1219-1), as people read them. */
export const oilLineTypes: Readonly<Record<OilLineType, string>> = {
  working: 'working line',
  pilot: 'pilot line',
  drain: 'drain line',
  hose: 'flexible hose',
}

export const lineModels: Readonly<Record<Pipe['lineModel'], string>> = {
  automatic: 'automatic',
  lossFree: 'loss-free',
  friction: 'friction and inertia',
  distributed: 'distributed',
}
export const lineModelNotes: Readonly<Record<Pipe['lineModel'], string>> = {
  automatic: 'Its loss counts where the flow of this sheet asks for it.',
  lossFree: 'Its ends have one pressure. A run reports what this leaves out.',
  friction: 'Laminar or turbulent loss, and its oil as one mass.',
  distributed:
    'In segments: pressure waves run in it. For long lines and fast valves; below 1 m its oil is one mass.',
}
export const pipeMaterials: Readonly<Record<NonNullable<Pipe['material']>, string>> = {
  steel: 'steel',
  stainless: 'stainless steel',
  copper: 'copper',
  aluminium: 'aluminium',
}
