/** Nobody is let in who should not be: pages elsewhere, other machines without the password. */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { openMachine, run } from './helpers'

/** The built server with an environment of its own; resolves with what it says once it listens or ends. */
function serve(env: Record<string, string>) {
  const server: ChildProcess = spawn(process.execPath, ['.output/server/index.mjs'], {
    env: { PATH: process.env.PATH ?? '', ...env },
  })
  let said = ''
  const read = (chunk: Buffer) => (said += chunk.toString())
  server.stdout!.on('data', read)
  server.stderr!.on('data', read)
  const ended = new Promise<number | null>((resolve) => server.on('exit', resolve))
  const listening = async () => {
    await expect.poll(() => said, { timeout: 20_000 }).toContain('Listening on')
    return said
  }
  return { server, ended, listening, said: () => said }
}
const folder = mkdtempSync(join(tmpdir(), 'oar-bench-security-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

test('a page elsewhere can neither read nor change anything', async ({ page, request, baseURL }) => {
  const evil = createServer((_, response) => response.end('<!doctype html><title>elsewhere</title>'))
  await new Promise<void>((resolve) => evil.listen(0, '127.0.0.1', resolve))
  const { port } = evil.address() as { port: number }
  const before = (await (await request.get('/api/machines')).json()).length
  await page.goto(`http://127.0.0.1:${port}/`)
  const attempt = (path: string, init: RequestInit) =>
    page.evaluate(
      ([url, options]) =>
        fetch(url, options)
          .then((r) => `answered ${r.status} ${r.type}`)
          .catch(() => 'blocked'),
      [`${baseURL}${path}`, init] as const,
    )
  await attempt('/api/machines', {
    method: 'POST',
    mode: 'no-cors',
    headers: { 'content-type': 'text/plain' },
    body: JSON.stringify({ name: 'Evil' }),
  })
  await attempt('/api/workspace', { method: 'POST', mode: 'no-cors', body: 'PK' })
  expect(await attempt('/api/machines', {})).toBe('blocked')
  expect((await (await request.get('/api/machines')).json()).length).toBe(before)
  evil.close()
})

test('the content security policy lets the whole application work, and nothing else run', async ({
  page,
}) => {
  const violations: string[] = []
  page.on('console', (message) => {
    if (/Content.Security.Policy/i.test(message.text())) violations.push(message.text())
  })
  const answer = (await page.goto('/'))!
  expect(answer.headers()['content-security-policy']).not.toMatch(/script-src[^;]*unsafe/)
  expect(answer.headers()['x-powered-by']).toBeUndefined()
  await openMachine(page, 'Blade press', 'Run')
  await run(page)
  await expect(page.locator('.apexcharts-series path').first()).toBeVisible()
  expect(violations).toEqual([])
  // what somebody smuggled in does not run
  await page.evaluate(() => {
    const script = document.createElement('script')
    script.textContent = 'window.smuggled = true'
    document.body.append(script)
  })
  expect(await page.evaluate(() => 'smuggled' in window)).toBe(false)
})

/** Signs in from an address of this machine. @returns the status */
const signInFrom = (localAddress: string, port: number, password: string) =>
  new Promise<number>((resolve, reject) => {
    const body = JSON.stringify({ password })
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        localAddress,
        method: 'POST',
        path: '/api/session',
        headers: { 'content-type': 'application/json', 'content-length': body.length },
      },
      (response) => {
        response.resume()
        resolve(response.statusCode ?? 0)
      },
    )
    asked.on('error', reject)
    asked.end(body)
  })

test('started by hand the server listens on this machine only; elsewhere it demands its password', async ({
  browser,
}) => {
  test.setTimeout(120_000)
  const own = serve({ PORT: '4181', NUXT_DATA_FOLDER: join(folder, 'own') })
  expect(await own.listening()).toContain('127.0.0.1:4181')
  own.server.kill()
  await own.ended

  const open = serve({ PORT: '4181', HOST: '0.0.0.0', NUXT_DATA_FOLDER: join(folder, 'open') })
  const password = /shown this once: (\S+)/.exec(await open.listening())![1]
  expect(readFileSync(join(folder, 'open', 'password.json'), 'utf8')).not.toContain(password)
  const context = await browser.newContext({ baseURL: 'http://127.0.0.1:4181' })
  const page = await context.newPage()
  const refused = await page.request.get('/api/machines')
  expect(refused.status()).toBe(401)
  await page.goto('/')
  await page.getByTestId('password').fill('not this one')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toContainText('not the password')
  await page.getByTestId('password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Machines' })).toBeVisible()
  const [cookie] = await context.cookies()
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' })
  // signed out, the session is over on the server: a cookie that was kept opens nothing
  const kept = await context.cookies()
  expect((await page.request.get('/api/machines')).status()).toBe(200)
  expect((await page.request.delete('/api/session')).ok()).toBe(true)
  const other = await browser.newContext({ baseURL: 'http://127.0.0.1:4181' })
  await other.addCookies(kept)
  expect((await other.request.get('/api/machines')).status()).toBe(401)
  await other.close()
  const guess = () => page.request.post('/api/session', { data: { password: 'guess' } })
  const answers: number[] = []
  for (let i = 0; i < 8; i++) answers.push((await guess()).status())
  expect(answers).toContain(429)
  // who guesses elsewhere locks nobody else out
  expect(await signInFrom('127.0.0.2', 4181, password)).toBe(204)
  await context.close()
  open.server.kill()
  await open.ended
  // started again it shows the password no more
  const again = serve({ PORT: '4181', HOST: '0.0.0.0', NUXT_DATA_FOLDER: join(folder, 'open') })
  expect(await again.listening()).not.toContain('shown this once')
  again.server.kill()
  await again.ended
})

test('what keeps the server from starting is said in plain words', async ({ baseURL }) => {
  const { port } = new URL(baseURL!)
  const taken = serve({ PORT: port, NUXT_DATA_FOLDER: join(folder, 'taken') })
  expect(await taken.ended).toBe(1)
  expect(taken.said()).toContain(`Port ${port} is taken by another program`)
  for (const port of ['abc', '99999']) {
    const wrong = serve({ PORT: port, NUXT_DATA_FOLDER: join(folder, 'wrong') })
    expect(await wrong.ended).toBe(1)
    expect(wrong.said()).toContain(`PORT=${port} is no port`)
  }
  const file = serve({ PORT: '4182', NUXT_DATA_FOLDER: join(process.cwd(), 'package.json') })
  expect(await file.ended).toBe(1)
  expect(file.said()).toMatch(/data folder ".*package\.json" is a file/)
  for (const { said } of [taken, file]) expect(said()).not.toMatch(/^\s+at /m)
})
