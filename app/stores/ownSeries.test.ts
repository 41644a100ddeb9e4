import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { readBrief } from '@oar-bench/core/size/brief/read'
import type { OwnSeries } from '#shared/api'
import { fetchError } from '../testing/fakeServer'
import { useFreeCards } from './freeCards'
import { useMachineSizes } from './machineSizes'
import { useOwnSeries } from './ownSeries'
import { useSheetDocument } from './sheetDocument'

const series: OwnSeries = { name: 'Store', of: 'bores', use: 'instead', source: 'list', sizes: ['90 mm'] }

beforeEach(() => {
  setActivePinia(createPinia())
  let kept: OwnSeries[] = []
  vi.stubGlobal(
    '$fetch',
    async (url: string, options: { method?: string; body?: { series: OwnSeries[] } } = {}) => {
      if (options.method === 'PUT') kept = options.body!.series
      if (options.method === 'DELETE') {
        if (url !== '/api/series/Store') throw fetchError(404, 'There is no such series.')
        kept = []
      }
      return kept
    },
  )
})

describe('the series of the workspace', () => {
  it('change the sizes of the machine and of calculators', async () => {
    useSheetDocument().open({
      id: 'm',
      name: 'Press',
      summary: '',
      brief: readBrief({
        purpose: 'press',
        values: { stroke: '600 mm', workingPressure: '190 bar', bucklingLength: '1' },
      }),
      briefRevision: 1,
      sheet: { id: 's', name: 'First', revision: 1, content: emptySheet('Press') },
      variants: [],
      runs: [],
    })
    const bores = () => [
      useMachineSizes().sizing.find('cylinder-bore@motion')!.values.bore,
      useFreeCards().nodes.find((n) => n.id === 'cylinder-bore')!.values.bore,
    ]
    const before = bores()
    expect(before[0]).toBeCloseTo(0.08, 9)
    await useOwnSeries().add([series])
    expect(bores()).toEqual([0.09, 0.09])
    await useOwnSeries().remove('Store')
    expect(bores()).toEqual(before)
  })
  it('stay as they are where the server refuses, and say why', async () => {
    const own = useOwnSeries()
    await own.add([series])
    expect(await own.remove('Other')).toBe(false)
    expect(own.message).toContain('There is no such series.')
    expect(own.list).toEqual([series])
    expect(await own.load()).toBe(true)
    expect(own.message).toBe('')
  })
})
