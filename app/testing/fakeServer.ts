/** A server with one machine that answers as the real one does, for tests of what the application does with its answers. */
import { vi } from 'vitest'
import { emptySheet, type Sheet } from '@oar-bench/core/sheet/schema'
import { emptyBrief, type Brief } from '@oar-bench/core/size/brief/brief'
import type { MachineDetail, Saved } from '#shared/api'

interface Save {
  revision: number
  saveId?: string
  sheet?: Sheet
  brief?: Brief
}
/** A failure as $fetch throws it; without a status the server did not answer. */
export function fetchError(statusCode?: number, message = '', data: object = {}): Error {
  return Object.assign(new Error(message), {
    name: 'FetchError',
    statusCode,
    data: statusCode === undefined ? undefined : { message, data },
  })
}

export function fakeServer(id = 'machine', sheetId = 'sheet') {
  const sheet = { content: emptySheet('Press'), revision: 1, saveId: null as string | null }
  const brief = { content: emptyBrief(), revision: 1, saveId: null as string | null }
  /** What happens to the next requests: the server fails before it does its work, or its answer is lost after it. */
  const troubles: ('refuse' | 'unreachable' | 'answer lost')[] = []
  const requests: { url: string; method: string }[] = []

  const detail = (): MachineDetail => ({
    id,
    name: 'Press',
    summary: '',
    brief: structuredClone(brief.content),
    briefRevision: brief.revision,
    sheet: {
      id: sheetId,
      name: 'First variant',
      revision: sheet.revision,
      content: structuredClone(sheet.content),
    },
    variants: [{ id: sheetId, name: 'First variant' }],
    runs: [],
  })
  function save<T>(
    kept: { content: T; revision: number; saveId: string | null },
    body: Save,
    content: T,
  ): Saved {
    if (kept.revision === body.revision) {
      kept.content = structuredClone(content)
      kept.revision++
      kept.saveId = body.saveId ?? null
    } else if (JSON.stringify(kept.content) !== JSON.stringify(content)) {
      const { revision, saveId } = kept
      throw fetchError(409, 'It was changed elsewhere.', { conflict: { revision, saveId } })
    }
    return { revision: kept.revision, updatedAt: 1 }
  }
  async function answer(url: string, options: { method?: string; body?: Save } = {}) {
    const { method = 'GET', body } = options
    requests.push({ url, method })
    const trouble = troubles.shift()
    if (trouble === 'refuse') throw fetchError(400, 'The sheet is wrong.')
    if (trouble === 'unreachable') throw fetchError()
    const result =
      method === 'GET'
        ? detail()
        : method === 'PATCH'
          ? undefined
          : url.endsWith('/brief')
            ? save(brief, body!, body!.brief!)
            : save(sheet, body!, body!.sheet!)
    if (trouble === 'answer lost') throw fetchError()
    return result
  }
  const stub = () => vi.stubGlobal('$fetch', answer)
  const puts = () => requests.filter((r) => r.method === 'PUT').length
  return { sheet, brief, troubles, requests, detail, stub, puts }
}
