/** What the strip below the sheet can show of a run. */
export const runViews = {
  charts: 'Charts',
  strokes: 'Strokes and steps',
  states: 'States',
  energy: 'Energy',
  compare: 'Compare',
} as const
export type RunView = keyof typeof runViews
