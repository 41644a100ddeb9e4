import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { issueText } from './issue-text'

const schema = z.strictObject({
  name: z.string().min(1).max(4),
  size: z.number().min(2).max(3),
  on: z.boolean(),
  list: z.array(z.string()).min(1).max(2),
  kind: z.enum(['a', 'b']),
})
const sound = { name: 'x', size: 2, on: true, list: ['x'], kind: 'a' }
const said = (change: object) =>
  schema.safeParse({ ...sound, ...change }).error?.issues.map((issue) => issueText(issue, 'the file'))

describe('what is wrong with data', () => {
  it.each([
    [{ name: 7 }, 'name: takes a text'],
    [{ name: '' }, 'name: must not be empty'],
    [{ name: 'abcde' }, 'name: is longer than 4 characters'],
    [{ size: 1 }, 'size: must be at least 2'],
    [{ size: 9 }, 'size: must be at most 3'],
    [{ on: 'yes' }, 'on: takes true or false'],
    [{ list: [] }, 'list: needs at least 1 entries'],
    [{ list: ['a', 'b', 'c'] }, 'list: has more than 2 entries'],
    [{ list: [3] }, 'list.0: takes a text'],
    [{ kind: 'c' }, 'kind: takes "a" or "b"'],
    [{ size: undefined }, 'size: is missing; it takes a number'],
    [{ colour: 1 }, 'the file: has "colour", which is not known here'],
  ])('%j is said in words', (change, words) => expect(said(change)).toEqual([words]))
  it('is nothing where all fits', () => expect(said({})).toBeUndefined())
  it('of no data at all concerns the whole', () =>
    expect(schema.safeParse(undefined).error!.issues.map((i) => issueText(i, 'the request'))).toEqual([
      'the request: is missing; it takes an object with named fields',
    ]))
})
