/// <reference types="vite/client" />
/** The routes, the middleware and the error handler of the server, listening on a port of their own over a data folder of their own. */
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, request as httpRequest, type IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { createApp, createRouter, toNodeListener, type EventHandler, type H3Error } from 'h3'
import { defineEventHandler as handler, type H3Event } from 'h3'
import middleware from '../middleware/security'
import onError from '../error'
import { setDataFolder } from './nitro'

type Method = 'get' | 'post' | 'put' | 'patch' | 'delete'
const modules = import.meta.glob<{ default: EventHandler }>(['../api/**/*.ts', '!../api/**/*.test.ts'])

/** The path and the method of a route file: api/machines/[id]/index.get.ts. */
export function routeOf(file: string): { path: string; method: Method } {
  const [, path, method] = /\/(api\/.*)\.(get|post|put|patch|delete)\.ts$/.exec(file)!
  return {
    path: `/${path.replace(/\/index$/, '').replace(/\[(\w+)\]/g, ':$1')}`,
    method: method as Method,
  }
}
export const routeFiles = Object.keys(modules)

export interface Answer {
  readonly status: number
  readonly headers: IncomingMessage['headers']
  readonly bytes: Buffer
  /** The body as JSON. */
  readonly json: () => any // eslint-disable-line @typescript-eslint/no-explicit-any
}
interface Options {
  readonly headers?: Readonly<Record<string, string>>
  /** Sent as JSON unless it is bytes. */
  readonly body?: unknown
}

export async function testServer() {
  const folder = mkdtempSync(join(tmpdir(), 'oar-bench-server-'))
  setDataFolder(folder)
  const app = createApp({
    onError: (error: H3Error, event: H3Event) => onError(error as never, event as never, {} as never),
  })
  app.use(middleware)
  const router = createRouter()
  for (const [file, load] of Object.entries(modules)) {
    const { path, method } = routeOf(file)
    router[method](path, (await load()).default)
  }
  app.use(router)
  app.use(handler(() => '<!doctype html>'))
  const server = createServer(toNodeListener(app))
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo

  function ask(method: string, path: string, { headers = {}, body }: Options = {}): Promise<Answer> {
    const bytes = body === undefined || body instanceof Uint8Array ? body : Buffer.from(JSON.stringify(body))
    const type = bytes && !(body instanceof Uint8Array) ? { 'content-type': 'application/json' } : {}
    const length = bytes ? { 'content-length': String(bytes.length) } : {}
    return new Promise((resolve, reject) => {
      const request = httpRequest(
        { port, host: '127.0.0.1', method, path, headers: { ...type, ...length, ...headers } },
        (response) => {
          buffer(response).then((content) => {
            resolve({
              status: response.statusCode!,
              headers: response.headers,
              bytes: content,
              json: () => JSON.parse(content.toString('utf8')),
            })
          }, reject)
        },
      )
      request.on('error', reject)
      request.end(bytes)
    })
  }
  async function close() {
    server.closeAllConnections()
    await new Promise((resolve) => server.close(resolve))
    rmSync(folder, { recursive: true, force: true })
  }
  return { ask, close, folder, port }
}
export type TestServer = Awaited<ReturnType<typeof testServer>>
