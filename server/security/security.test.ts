import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { hostname, tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { contentSecurityPolicy, inlineScriptHashes } from './headers'
import {
  addressKey,
  isAllowedHost,
  isLoopback,
  isSameOrigin,
  listenAddress,
  nameOfHost,
  portProblem,
} from './hosts'
import { isPassword, preparePassword } from './password'
import { refusalOf } from './routes'

const folder = mkdtempSync(join(tmpdir(), 'oar-bench-password-'))
afterAll(() => rmSync(folder, { recursive: true }))

describe('the address to listen on', () => {
  it('is loopback unless the environment says otherwise', () => {
    expect(listenAddress({})).toBe('127.0.0.1')
    expect(listenAddress({ HOST: '0.0.0.0' })).toBe('0.0.0.0')
    expect(listenAddress({ HOST: '' })).toBe('127.0.0.1')
    expect(['127.0.0.1', '127.9.9.9', '::1', 'localhost'].every(isLoopback)).toBe(true)
    expect(['0.0.0.0', '::', '192.168.0.7', 'oar'].some(isLoopback)).toBe(false)
  })
})

describe('the port', () => {
  it('is a whole number that ports have', () => {
    for (const port of ['3000', '1', '65535', '']) expect(portProblem({ PORT: port })).toBeUndefined()
    for (const port of ['abc', '99999', '0', '-1', '3000.5', '1e3', '12 '])
      expect(portProblem({ PORT: port })).toContain('no port')
    expect(portProblem({ NITRO_PORT: 'x', PORT: '3000' })).toContain('PORT=x')
  })
})

describe('an address at which attempts are counted', () => {
  it.each([
    ['192.168.0.7', '192.168.0.7'],
    ['::ffff:192.168.0.7', '192.168.0.7'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:DB8:1:2::6', '2001:db8:1:2'],
    ['fe80::1%eth0', 'fe80:0:0:0'],
    ['::1', '0:0:0:0'],
  ])('%s is %s', (address, key) => expect(addressKey(address)).toBe(key))
})

describe('the name that is asked for', () => {
  it.each([
    ['127.0.0.1:3000', '127.0.0.1'],
    ['[::1]:3000', '::1'],
    ['LocalHost', 'localhost'],
    ['a b', undefined],
    ['', undefined],
    [undefined, undefined],
  ])('of %s is %s', (host, name) => expect(nameOfHost(host)).toBe(name))
  it('may be an address, this machine, or one that is listed', () => {
    for (const host of [
      '10.0.0.1:80',
      '[fe80::1]',
      'localhost:1',
      `${hostname()}:3000`,
      `${hostname()}.local`,
    ])
      expect(isAllowedHost(host), host).toBe(true)
    for (const host of ['evil.example', '127.0.0.1.evil.example', 'localhost.evil', undefined])
      expect(isAllowedHost(host), host).toBe(false)
    expect(isAllowedHost('bench.workshop:80', ['Bench.Workshop'])).toBe(true)
    expect(isAllowedHost('', ['', ' '])).toBe(false)
  })
})

describe('where a request comes from', () => {
  const host = '127.0.0.1:3000'
  it.each([
    [{ host }, true],
    [{ host, origin: 'http://127.0.0.1:3000' }, true],
    [{ host, origin: 'http://127.0.0.1:3001' }, false],
    [{ host, origin: 'http://evil.example' }, false],
    [{ host, origin: 'null' }, false],
    [{ host, site: 'same-origin' }, true],
    [{ host, site: 'none' }, true],
    [{ host, site: 'same-site' }, false],
    [{ host, site: 'cross-site' }, false],
    // what the origin says counts
    [{ host, origin: 'http://evil.example', site: 'same-origin' }, false],
  ])('%j is of this server: %s', (source, same) => expect(isSameOrigin(source)).toBe(same))
})

describe('the password', () => {
  it('is made once, kept as a hash that only its owner can read, and recognised', () => {
    const { made, stored } = preparePassword(folder)
    expect(made!.length).toBeGreaterThanOrEqual(16)
    expect(isPassword(made!, stored)).toBe(true)
    expect(isPassword(`${made}x`, stored)).toBe(false)
    expect(isPassword('', stored)).toBe(false)
    const file = join(folder, 'password.json')
    expect(readFileSync(file, 'utf8')).not.toContain(made)
    expect(statSync(file).mode & 0o077).toBe(0)
    expect(preparePassword(folder)).toEqual({ stored })
  })
  it('of the environment takes its place, and ends the sessions of the one before', () => {
    const before = preparePassword(folder).stored
    const given = preparePassword(folder, 'a longer password')
    expect(given.made).toBeUndefined()
    expect(isPassword('a longer password', given.stored)).toBe(true)
    expect(given.stored.sessionSecret).not.toBe(before.sessionSecret)
    // started again with the same it stays
    expect(preparePassword(folder, 'a longer password').stored).toEqual(given.stored)
    expect(() => preparePassword(folder, 'short')).toThrow(/at least 10/)
  })
  it('is not guessed from a file that is damaged', () => {
    const other = mkdtempSync(join(folder, 'x'))
    writeFileSync(join(other, 'password.json'), '{"hash":""}')
    expect(() => preparePassword(other)).toThrow()
  })
})

describe('the head of a request', () => {
  const post = {
    path: '/api/machines',
    method: 'POST',
    type: 'application/json; charset=utf-8',
    length: '20',
  }
  it('passes where all is well, and HEAD is as GET', () => {
    expect(refusalOf(post)).toBeUndefined()
    expect(refusalOf({ path: '/api/machines', method: 'HEAD' })).toBeUndefined()
  })
  it.each([
    [{ ...post, path: '/api/machines/../x' }, 404],
    [{ ...post, method: 'DELETE' }, 405],
    [{ ...post, type: undefined }, 415],
    [{ ...post, type: 'application/jsonp' }, 415],
    [{ ...post, length: '70000' }, 413],
    [{ ...post, length: undefined, transferEncoding: 'chunked' }, 411],
  ])('%j is refused with %i', (head, status) => expect(refusalOf(head)!.status).toBe(status))
})

describe('the content security policy', () => {
  it('allows the inline scripts of the page by their hashes, and no other', () => {
    const html =
      '<script>window.a=1</script><script src="/x.js"></script><script type="importmap">{}</script>'
    expect(inlineScriptHashes(html)).toHaveLength(2)
    // the hash of "window.a=1"
    expect(contentSecurityPolicy(html)).toContain(`script-src 'self' ${inlineScriptHashes(html).join(' ')};`)
    expect(contentSecurityPolicy()).toContain("script-src 'self';")
    expect(contentSecurityPolicy(html)).not.toMatch(/script-src[^;]*unsafe/)
  })
})
