import { describe, expect, it } from 'vitest'
import { programs, runByNpm, runBundled, runIntoClosedPipe } from './testing'

describe('the command-line programs', { timeout: 60_000 }, () => {
  it.each(programs)('%s is started by npm, and says how it is used', async (name) => {
    const answer = await runByNpm(name, '--no-such-option')
    expect(answer).toMatchObject({ code: 2, out: '', err: expect.stringMatching(/Usage: /) })
    // what the other tests start is the same program
    expect(await runBundled(name, '--no-such-option')).toEqual(answer)
  })
  it.each([
    ['size', ['--list', '--json']],
    ['explain', ['demo/sheets/blade-press-switches.json', '--walkthrough', '--json']],
    ['control', ['demo/sheets/blade-press-switches.json', '--text']],
  ] as const)('%s ends quietly where its reader has seen enough', async (name, args) => {
    const { code, err } = await runIntoClosedPipe(name, ...args)
    expect([code, err]).toEqual([0, ''])
  })
})
