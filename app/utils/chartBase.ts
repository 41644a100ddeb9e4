import type { ApexOptions } from 'apexcharts'

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

/** What all charts have: no animation or tools of their own, the font of the page, and the colours of its theme. */
export const chartBase = (dark: boolean) => ({
  soft: dark ? '#a3b0b5' : '#56636b',
  grid: dark ? '#37454c' : '#dcd8cc',
  theme: { mode: dark ? 'dark' : 'light' } satisfies ApexOptions['theme'],
  chart: {
    type: 'line',
    animations: { enabled: false },
    toolbar: { show: false },
    zoom: { enabled: false },
    selection: { enabled: false },
    background: 'transparent',
    fontFamily: css('--font-sans') || 'inherit',
    parentHeightOffset: 0,
  } satisfies ApexOptions['chart'],
})
