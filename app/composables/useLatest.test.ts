import { effectScope } from 'vue'
import { describe, expect, it } from 'vitest'
import { useLatest } from './useLatest'

/** A question with a promise that the test resolves or rejects. */
function open<T>() {
  let answer!: (value: T) => void
  let fail!: (error: Error) => void
  const promise = new Promise<T>((resolve, reject) => {
    answer = resolve
    fail = reject
  })
  return { promise, answer, fail }
}
const scoped = () => {
  const scope = effectScope()
  return { scope, latest: scope.run(() => useLatest<string>())! }
}

describe('a question of which the last one counts', () => {
  it('keeps the answer to the last, whichever comes first', async () => {
    const { latest } = scoped()
    const [first, second] = [open<string>(), open<string>()]
    const flags: boolean[] = []
    const asked = latest.ask(async (isLatest) => {
      const value = await first.promise
      flags.push(isLatest())
      return value
    })
    const again = latest.ask(() => second.promise)
    expect(latest.busy.value).toBe(true)
    second.answer('second')
    await again
    expect([latest.answer.value, latest.busy.value]).toEqual(['second', false])
    first.answer('first')
    await asked
    expect(latest.answer.value).toBe('second')
    expect(flags).toEqual([false])
  })
  it('forgets what is cancelled, and ends with its owner', async () => {
    for (const end of ['cancel', 'scope'] as const) {
      const { scope, latest } = scoped()
      const question = open<string>()
      const asked = latest.ask(() => question.promise)
      if (end === 'cancel') latest.cancel()
      else scope.stop()
      expect(latest.busy.value).toBe(false)
      question.answer('late')
      await asked
      expect(latest.answer.value).toBeUndefined()
    }
  })
  it('says why there is no answer, until it is asked again', async () => {
    const { latest } = scoped()
    await latest.ask(() => Promise.resolve('before'))
    await latest.ask(() => Promise.reject(new Error('The circuit could not be solved.')))
    expect([latest.answer.value, latest.problem.value]).toEqual([
      undefined,
      'The circuit could not be solved.',
    ])
    await latest.ask(() => Promise.resolve('after'))
    expect([latest.answer.value, latest.problem.value]).toEqual(['after', ''])
  })
})
