import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createApp, createError, toNodeListener, type H3Error, type H3Event } from 'h3'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, describe, expect, it } from 'vitest'
import { openDatabase } from '../database/open'
import { machines } from '../database/schema'
import { insertMachine } from '../database/machines'
import onError from '../error'
import { migrations } from '../testing/migrations'
import { startFailure, storageFailure } from './failures'

const folder = mkdtempSync(join(tmpdir(), 'oar-bench-failures-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const failure = (work: () => unknown): Error => {
  try {
    work()
  } catch (error) {
    return error as Error
  }
  throw new Error('It did not fail.')
}
const coded = (code: string, more: object = {}) => Object.assign(new Error('technical'), { code, ...more })

describe('what is said where the data cannot be kept', () => {
  it('names a data folder that is a file', () => {
    const file = join(folder, 'file')
    writeFileSync(file, '')
    const error = failure(() => openDatabase(file, migrations))
    expect(startFailure(error, file)).toBe(
      `Oar Bench cannot start. The data folder "${file}" is a file. Choose another folder with NUXT_DATA_FOLDER.`,
    )
  })
  it('names a database that is none', () => {
    const place = join(folder, 'damaged')
    mkdirSync(place)
    writeFileSync(
      join(place, 'oar-bench.sqlite'),
      'this is no database, and long enough to be taken for one'.repeat(50),
    )
    const error = failure(() => openDatabase(place, migrations))
    expect(startFailure(error, place)).toMatch(/is damaged or is not one of Oar Bench/)
  })
  it('names a full disk while saving', () => {
    const { connection, db } = openDatabase(join(folder, 'full'), migrations)
    // no page more than there are
    const pages = connection.pragma('page_count', { simple: true }) as number
    connection.pragma(`max_page_count = ${pages}`)
    const error = failure(() => {
      for (let i = 0; i < 1000; i++)
        insertMachine(db, { name: 'x'.repeat(80), summary: 'y'.repeat(400), variants: [] })
    })
    expect(storageFailure(error, folder)).toBe('The disk is full. Make room, then try again.')
    expect(db.select().from(machines).all().length).toBeLessThan(1000)
  })
  it('names a database that cannot be written', () => {
    const { connection, db } = openDatabase(join(folder, 'read-only'), migrations)
    connection.pragma('query_only = ON')
    const error = failure(() => insertMachine(db, { name: 'x', summary: '', variants: [] }))
    expect(storageFailure(error, 'data')).toMatch(/"data" cannot be written.*NUXT_DATA_FOLDER/)
    chmodSync(folder, 0o755)
  })
  it.each([
    ['ENOSPC', /disk is full/],
    ['EROFS', /cannot be written/],
    ['SQLITE_BUSY', /Another program/],
    ['SQLITE_IOERR_WRITE', /does not work as it should/],
  ])('%s in plain words', (code, words) => expect(storageFailure(coded(code), 'data')).toMatch(words))
  it('leaves other failures alone', () => expect(storageFailure(new Error('x'), 'data')).toBeUndefined())
})

describe('what is said where the server cannot listen', () => {
  it.each([
    [coded('EADDRINUSE', { port: 3000 }), /Port 3000 is taken by another program.*PORT=3001/],
    [coded('EACCES', { port: 80 }), /Port 80 may not be used/],
    [coded('EADDRNOTAVAIL', { address: '9.9.9.9' }), /no address 9.9.9.9/],
    [new Error('Something else.'), /cannot start. Something else/],
  ])('%s', (error, words) => expect(startFailure(error, 'data')).toMatch(words))
})

describe('the answer to a request that failed', () => {
  async function answerTo(error: Error) {
    const app = createApp({
      onError: (e: H3Error, event: H3Event) => onError(e as never, event as never, {} as never),
    })
    app.use('/', () => {
      throw error
    })
    const server = createServer(toNodeListener(app))
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`)
    const body = (await answer.json()) as { message: string; data?: unknown; stack?: unknown }
    server.close()
    return { status: answer.status, body }
  }
  it('is that of the refusal, with its data', async () => {
    const { status, body } = await answerTo(
      createError({ statusCode: 409, message: 'No.', data: { conflict: 1 } }),
    )
    expect([status, body.message, body.data]).toEqual([409, 'No.', { conflict: 1 }])
  })
  it('tells what to do where the disk is full', async () => {
    const { status, body } = await answerTo(coded('SQLITE_FULL'))
    expect([status, body.message]).toEqual([507, 'The disk is full. Make room, then try again.'])
  })
  it('tells nothing of the inside where something else went wrong', async () => {
    const { status, body } = await answerTo(new Error('password is hunter2 at /secret/path'))
    expect(status).toBe(500)
    expect(JSON.stringify(body)).not.toMatch(/hunter2|secret|stack/)
  })
})
