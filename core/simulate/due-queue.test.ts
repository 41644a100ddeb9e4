import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DueQueue, type DueSource } from './due-queue'

describe('what is due', () => {
  it('comes by its instant, and in the order in which it was asked for where instants are equal', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(9), { maxLength: 30 }), (instants) => {
        const queue = new DueQueue<number>()
        instants.forEach((at, i) => queue.add({ at, source: 'user', action: i }))
        const taken: [number, number][] = []
        for (let due = queue.pop(9); due; due = queue.pop(9)) taken.push([due.at, due.action!])
        const expected = instants
          .map((at, i): [number, number] => [at, i])
          .sort((a, b) => a[0] - b[0] || a[1] - b[1])
        expect(taken).toEqual(expected)
        expect(queue.next).toBe(Infinity)
      }),
    )
  })
  it('waits for its instant', () => {
    const queue = new DueQueue<string>()
    queue.add({ at: 2, source: 'schedule' })
    expect(queue.pop(1.9)).toBeUndefined()
    expect(queue.pop(2)).toEqual({ at: 2, source: 'schedule' })
  })
  it('can be taken back by who asked, and asked for by source', () => {
    const queue = new DueQueue<string>()
    const sources: DueSource[] = ['control', 'schedule', 'control', 'user']
    sources.forEach((source, at) => queue.add({ at, source }))
    expect([queue.nextOf('control'), queue.nextOf('user'), queue.nextExcept('control')]).toEqual([0, 3, 1])
    queue.clear('control')
    expect([queue.next, queue.nextOf('control')]).toEqual([1, Infinity])
  })
  it('goes on from what was saved', () => {
    const queue = new DueQueue<string>()
    queue.add({ at: 1, source: 'user', action: 'a' })
    const saved = structuredClone(queue.save())
    queue.pop(1)
    queue.load(saved)
    expect(queue.pop(1)).toEqual({ at: 1, source: 'user', action: 'a' })
  })
})
