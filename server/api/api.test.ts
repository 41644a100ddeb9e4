/** The routes over real requests. */
import { gzipSync } from 'node:zlib'
import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes, runSheet, timed } from '../../core/testing'
import { encodeRun } from '../../core/formats/run-file'
import { emptySheet, type Sheet } from '../../core/sheet/schema'
import { machines } from '../database/schema'
import { findSummary } from '../database/summaries'
import { routes } from '../security/routes'
import { routeFiles, routeOf, testServer, type TestServer } from '../testing/testServer'
import { useStore } from '../utils/store'
import { summariesUpdated } from '../utils/background'

let server: TestServer
beforeAll(async () => {
  server = await testServer()
})
afterAll(() => server.close())

const sheet = circuit(powerUnit, powerUnitPipes)
const get = async (path: string) => (await server.ask('GET', path)).json()
async function newMachine(name = 'Press') {
  const { id } = (await server.ask('POST', '/api/machines', { body: { name, summary: 'presses' } })).json()
  const detail = await get(`/api/machines/${id}`)
  return { id, sheetId: detail.sheet.id as string, url: `/api/sheets/${detail.sheet.id}` }
}
const put = (url: string, revision: number, content: Sheet, saveId?: string) =>
  server.ask('PUT', url, { body: { revision, sheet: content, ...(saveId ? { saveId } : {}) } })

describe('series of sizes', () => {
  const series = { name: 'Store 3/4', of: 'bores', use: 'instead', source: 'list', sizes: ['45 mm', '90 mm'] }
  const add = (list: unknown) => server.ask('PUT', '/api/series', { body: { series: list } })
  it('are added, replaced by name and taken away, and sheets are summarised anew', async () => {
    const { sheetId } = await newMachine()
    await get('/api/machines')
    await summariesUpdated()
    expect((await add([series])).json()).toEqual([series])
    expect((await add([{ ...series, use: 'added' }])).json()).toEqual([{ ...series, use: 'added' }])
    expect(await get('/api/series')).toHaveLength(1)
    await summariesUpdated()
    expect(findSummary(useStore(), sheetId)).toBeDefined()
    const path = `/api/series/${encodeURIComponent(series.name)}`
    expect((await server.ask('DELETE', path)).json()).toEqual([])
    const gone = await server.ask('DELETE', path)
    expect([gone.status, gone.json().message]).toEqual([404, expect.stringContaining('no such series')])
  })
  it.each([
    [[], 'series'],
    [[{ ...series, sizes: ['3 bar'] }], 'bar'],
    [[{ ...series, of: 'wheels' }], 'of'],
    [[{ ...series, name: ' ' }], 'name'],
  ])('are refused where they are wrong: %j', async (list, word) => {
    const answer = await add(list)
    expect(answer.status).toBe(400)
    expect(answer.json().message).toContain(word)
    expect(await get('/api/series')).toEqual([])
  })
  it('are two hundred at most', async () => {
    const many = Array.from({ length: 200 }, (_, i) => ({ ...series, name: `S${i}` }))
    expect((await add(many)).status).toBe(200)
    expect((await add([series])).json().message).toContain('at most')
    expect((await add([{ ...many[0], source: 'new' }])).status).toBe(200)
    for (const { name } of many) await server.ask('DELETE', `/api/series/${name}`)
  })
})

describe('saving a sheet', () => {
  let url: string
  beforeEach(async () => ({ url } = await newMachine()))
  it('counts revisions, and refuses one that started from another, telling what is there', async () => {
    expect((await put(url, 1, sheet, 'a')).json()).toMatchObject({ revision: 2 })
    const stale = await put(url, 1, emptySheet('Other'), 'b')
    expect(stale.status).toBe(409)
    expect(stale.json()).toMatchObject({
      message: expect.stringContaining('changed elsewhere'),
      data: { conflict: { revision: 2, saveId: 'a' } },
    })
  })
  it('takes what is there already for saved', async () => {
    await put(url, 1, sheet)
    const again = await put(url, 1, sheet)
    expect([again.status, again.json().revision]).toEqual([200, 2])
  })
  it('says what is wrong with a sheet, and keeps the one that is there', async () => {
    const bad = await server.ask('PUT', url, { body: { revision: 1, sheet: { ...sheet, extra: 1 } } })
    expect(bad.status).toBe(400)
    expect(bad.json().message).toContain('extra')
    const broken = await server.ask('PUT', url, {
      body: Buffer.from('{'),
      headers: { 'content-type': 'application/json' },
    })
    expect(broken.status).toBe(400)
  })
  it('of the brief goes the same way', async () => {
    const { id } = await newMachine()
    const path = `/api/machines/${id}/brief`
    const brief = { purpose: 'press', never: '', onLoss: '', values: {} }
    expect((await server.ask('PUT', path, { body: { revision: 1, brief } })).json().revision).toBe(2)
    expect((await server.ask('PUT', path, { body: { revision: 1, brief } })).status).toBe(200)
    const other = { ...brief, purpose: 'lift' }
    expect((await server.ask('PUT', path, { body: { revision: 1, brief: other } })).status).toBe(409)
    expect(
      (await server.ask('PUT', '/api/machines/none/brief', { body: { revision: 1, brief } })).status,
    ).toBe(404)
  })
})

describe('a brief of version 1', () => {
  const first = {
    purpose: 'press',
    never: '',
    onLoss: 'holds',
    values: { stroke: '700 mm', pressForce: '80 kN' },
  }
  it('that a tab of an older program saves is taken in the present form', async () => {
    const { id } = await newMachine()
    const body = { revision: 1, brief: first }
    expect((await server.ask('PUT', `/api/machines/${id}/brief`, { body })).status).toBe(200)
    const { brief } = (await server.ask('GET', `/api/machines/${id}`)).json()
    expect(brief).toMatchObject({ version: 3, purpose: 'press', onLoss: 'holds' })
    expect(brief.motions[0].values).toMatchObject({ stroke: '700 mm', workForce: '80 kN' })
  })
  it('that was kept before is read in the present form', async () => {
    const { id } = await newMachine()
    useStore()
      .update(machines)
      .set({ brief: JSON.stringify(first) })
      .where(eq(machines.id, id))
      .run()
    const { brief } = (await server.ask('GET', `/api/machines/${id}`)).json()
    expect(brief.motions).toHaveLength(1)
    const [row] = (await server.ask('GET', '/api/machines')).json().filter((m: { id: string }) => m.id === id)
    expect(row.briefFilled).toBe(true)
  })
})

describe('a disk that is full', () => {
  it('while saving is told in plain words, and what was saved before is there', async () => {
    const { id, url } = await newMachine('Full')
    await put(url, 1, sheet)
    const store = useStore()
    const { page_count: pages } = store.get<{ page_count: number }>(sql.raw('PRAGMA page_count'))
    store.run(sql.raw(`PRAGMA max_page_count = ${pages}`))
    try {
      const text = 'x'.repeat(190)
      const parameters = Object.fromEntries(Array.from({ length: 150 }, (_, i) => [`p${i}`, text]))
      const big = { ...sheet, components: sheet.components.map((c) => ({ ...c, parameters })) }
      const answer = await put(url, 2, big)
      expect(answer.status).toBe(507)
      expect(answer.json()).toEqual({
        statusCode: 507,
        message: 'The disk is full. Make room, then try again.',
      })
    } finally {
      store.run(sql.raw('PRAGMA max_page_count = 1073741823'))
    }
    expect((await get(`/api/machines/${id}`)).sheet).toMatchObject({ revision: 2, content: sheet })
    expect((await put(url, 2, emptySheet('After'))).status).toBe(200)
  })
})

describe('machines', () => {
  it('are listed with where each step stands, without their sheets', async () => {
    const { id, url } = await newMachine('Baler')
    await put(url, 1, sheet)
    await summariesUpdated()
    await get('/api/machines')
    await summariesUpdated()
    const row = (await get('/api/machines')).find((m: { id: string }) => m.id === id)
    expect(row).toMatchObject({
      name: 'Baler',
      variants: 1,
      briefFilled: false,
      sheet: { components: sheet.components.length, errors: 0 },
      runs: 0,
      lastRun: null,
    })
    const picture = await server.ask('GET', `${url}/thumbnail?revision=2`)
    expect(picture.headers['content-type']).toBe('image/svg+xml')
    expect(picture.headers['cache-control']).toContain('immutable')
    expect(picture.bytes.toString()).toMatch(/^<svg/)
  })
  it('can be renamed, copied with their sheets, and deleted', async () => {
    const { id, url } = await newMachine('Lift')
    await put(url, 1, sheet)
    await server.ask('PATCH', `/api/machines/${id}`, { body: { name: 'Hoist', summary: '' } })
    const copied = (
      await server.ask('POST', `/api/machines/${id}/copy`, { body: { name: 'Hoist 2' } })
    ).json()
    const copy = await get(`/api/machines/${copied.id}`)
    expect(copy).toMatchObject({ name: 'Hoist 2', sheet: { revision: 1 } })
    expect(copy.sheet.content).toEqual(sheet)
    expect((await server.ask('DELETE', `/api/machines/${id}`)).status).toBe(204)
    expect((await server.ask('GET', `/api/machines/${id}`)).status).toBe(404)
    expect((await get(`/api/machines/${copied.id}`)).sheet.content).toEqual(sheet)
    expect((await server.ask('POST', '/api/machines/none/copy', { body: { name: 'x' } })).status).toBe(404)
  })
  it('have variants, of which the last one stays', async () => {
    const { id, sheetId } = await newMachine()
    const added = await server.ask('POST', `/api/machines/${id}/sheets`, {
      body: { name: 'B', from: sheetId },
    })
    expect(added.status).toBe(201)
    const { id: second } = added.json()
    await server.ask('PATCH', `/api/sheets/${second}`, { body: { name: 'C' } })
    expect(
      (await get(`/api/machines/${id}?sheet=${second}`)).variants.map((v: { name: string }) => v.name),
    ).toEqual(['First variant', 'C'])
    expect((await server.ask('DELETE', `/api/sheets/${second}`)).status).toBe(204)
    expect((await server.ask('DELETE', `/api/sheets/${sheetId}`)).status).toBe(409)
    expect((await server.ask('GET', `/api/machines/${id}?sheet=${second}`)).status).toBe(404)
  })
})

describe('runs and revisions', () => {
  const bytes = encodeRun(runSheet(timed(sheet, 0.1, [])))
  it.each([
    ['compressed', gzipSync(bytes), 'gzip'],
    ['as they are', Buffer.from(bytes), undefined],
  ])('runs are kept %s, with their sheet', async (_words, data, encoding) => {
    const { url, id } = await newMachine()
    const body = { name: 'First', sheet, data: data.toString('base64') }
    const kept = await server.ask('POST', `${url}/runs`, { body })
    expect(kept.status).toBe(201)
    const run = kept.json()
    const answer = await server.ask('GET', `/api/runs/${run.id}`)
    expect(answer.headers['content-encoding']).toBe(encoding)
    expect(answer.bytes.equals(data)).toBe(true)
    expect(await get(`/api/runs/${run.id}/sheet`)).toEqual(sheet)
    await server.ask('PATCH', `/api/runs/${run.id}`, { body: { name: 'Renamed' } })
    expect((await get(`/api/machines/${id}`)).runs[0].name).toBe('Renamed')
    expect((await server.ask('DELETE', `/api/runs/${run.id}`)).status).toBe(204)
    expect((await server.ask('DELETE', `/api/runs/${run.id}`)).status).toBe(404)
  })
  it.each([
    ['no run', Buffer.from('nonsense').toString('base64')],
    ['no archive', gzipSync(Buffer.from('nonsense')).subarray(0, 12).toString('base64')],
    ['no base64', '%%%'],
  ])('what is %s is refused', async (_words, data) => {
    const { url } = await newMachine()
    const answer = await server.ask('POST', `${url}/runs`, { body: { name: 'x', sheet, data } })
    expect(answer.status).toBe(400)
  })
  it('revisions keep a state under a name', async () => {
    const { url } = await newMachine()
    const body = { name: 'A', note: 'for review', sheet }
    const { id } = (await server.ask('POST', `${url}/revisions`, { body })).json()
    expect(await get(`${url}/revisions`)).toMatchObject([{ id, name: 'A', note: 'for review' }])
    expect(await get(`/api/revisions/${id}`)).toEqual(sheet)
    expect((await server.ask('DELETE', `/api/revisions/${id}`)).status).toBe(204)
    expect(await get(`${url}/revisions`)).toEqual([])
  })
})

describe('who may ask, and for what', () => {
  it('has a rule for every route file and method, and no rule without one', () => {
    const files = routeFiles.map(routeOf)
    const listed = routes.flatMap(({ path, methods }) =>
      Object.keys(methods).map((method) => `${path.source} ${method.toLowerCase()}`),
    )
    const found = files.map(({ path, method }) => {
      const route = routes.find((r) => r.path.test(path.replace(/:\w+/g, 'x')))
      return `${route?.path.source} ${method}`
    })
    expect(found.sort()).toEqual(listed.sort())
  })
  it.each([
    ['GET', '/api/nothing', {}, 404],
    ['GET', '/api', {}, 404],
    ['GET', '/api/machines/', {}, 404],
    ['PUT', '/api/machines', { body: {} }, 405],
    ['POST', '/api/runs/x', { body: {} }, 405],
    ['POST', '/', { body: {} }, 405],
    [
      'POST',
      '/api/machines',
      { body: Buffer.from('name=x'), headers: { 'content-type': 'text/plain' } },
      415,
    ],
    ['POST', '/api/machines', { body: Buffer.from('name=x') }, 415],
    ['POST', '/api/workspace', { body: {} }, 415],
    ['POST', '/api/machines', { body: { name: 'x'.repeat(70_000) } }, 413],
    ['PUT', '/api/sheets/x', { body: { sheet: 'x'.repeat(7e6) } }, 413],
  ] as const)('%s %s with %j is answered %i as JSON', async (method, path, options, status) => {
    const answer = await server.ask(method, path, options)
    expect(answer.status).toBe(status)
    expect(answer.json().message.length).toBeGreaterThan(10)
    if (status === 405 && path !== '/') expect(answer.headers.allow).toMatch(/[A-Z]/)
  })
  it.each([
    [{ origin: 'http://evil.example' }, 403],
    [{ origin: 'null' }, 403],
    [{ 'sec-fetch-site': 'cross-site' }, 403],
    [{ 'sec-fetch-site': 'same-site' }, 403],
    [{ host: 'evil.example' }, 421],
    [{ host: 'localhost.evil.example:80' }, 421],
    [{ host: 'a b' }, 421],
    [{ 'sec-fetch-site': 'same-origin' }, 200],
    [{ host: 'localhost:1234' }, 200],
    [{ host: '192.168.0.7' }, 200],
    [{ host: '[::1]:80' }, 200],
  ] as const)('with %j it is answered %i', async (headers, status) => {
    expect((await server.ask('GET', '/api/machines', { headers })).status).toBe(status)
  })
  it('takes what comes from its own page', async () => {
    const origin = `http://127.0.0.1:${server.port}`
    const body = { name: 'Own' }
    expect((await server.ask('POST', '/api/machines', { body, headers: { origin } })).status).toBe(201)
    const other = { origin: 'http://127.0.0.1:1' }
    expect((await server.ask('POST', '/api/machines', { body, headers: other })).status).toBe(403)
  })
  it('has security headers on every answer', async () => {
    for (const path of ['/', '/api/machines', '/api/nothing']) {
      const { headers } = await server.ask('GET', path)
      expect(headers['x-content-type-options']).toBe('nosniff')
      expect(headers['content-security-policy']).toMatch(/script-src 'self';.*frame-ancestors 'none'/)
      expect(headers['referrer-policy']).toBe('no-referrer')
      expect(headers['x-powered-by']).toBeUndefined()
    }
  })
  it('demands no password on this machine', async () => {
    expect(await get('/api/session')).toEqual({ passwordDemanded: false, signedIn: true })
  })
})
