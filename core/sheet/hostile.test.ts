/** Files that mean harm or come from elsewhere: a clear refusal, or a sheet that says what it does not know. */
import { describe, expect, it } from 'vitest'
import { readSvg, sheetToSvg } from '../formats/svg'
import { check } from '../simulate/compile'
import { showIn } from '../units/text'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import { addComponent } from './edit'
import { readSheet, readSheetText, writeSheetText } from './read'
import { emptySheet, type Sheet } from './schema'

const message = (text: string) => {
  const read = readSheetText(text)
  return read.ok ? 'read' : read.problems[0].message
}
const base = emptySheet('x')
const file = (more: object) => JSON.stringify({ ...base, ...more })

describe('files that are refused', () => {
  it.each([
    ['nested a million deep', '['.repeat(1e6), /not JSON/],
    ['nested and closed', `${'{"a":'.repeat(1e5)}1${'}'.repeat(1e5)}`, /not an Oar Bench sheet/],
    [
      'a nest in a field',
      `{"format":"oar-bench-sheet","version":3,"fluid":${'['.repeat(1e5)}${']'.repeat(1e5)}}`,
      /fluid/,
    ],
    ['50 MB', `{"format":"oar-bench-sheet","x":"${'a'.repeat(50e6)}"}`, /larger than 20 MB/],
    [
      'more parts than a sheet has',
      file({ components: Array(2001).fill({ id: 'a', kind: 'plug' }) }),
      /components/,
    ],
    ['the same id twice', file({ components: [{ id: 'a', kind: 'plug' }, { id: 'a', kind: 'plug' }] }), /twice|a/], // prettier-ignore
    ['an id that is a path', file({ components: [{ id: '../a', kind: 'plug' }] }), /components\.0\.id/],
    ['an id that is a script', file({ junctions: [{ id: '<script>' }] }), /junctions\.0\.id/],
    ['coordinates without end', file({ junctions: [{ id: 'a', x: 1e300 }] }), /junctions\.0\.x/],
    [
      'a value that is no text',
      file({ components: [{ id: 'a', kind: 'plug', parameters: { x: 7 } }] }),
      /parameters/,
    ],
    [
      'a prototype as a field',
      `{"format":"oar-bench-sheet","version":3,"__proto__":{"x":1},"colour":1}`,
      /colour/,
    ],
    ['null', 'null', /not an Oar Bench sheet/],
    ['nothing', '', /not JSON/],
  ])('%s', (_, text, words) => expect(message(text)).toMatch(words))
})

describe('files that are read with care', () => {
  it('a kind of a newer program is kept, and named', () => {
    const text = file({ components: [{ id: 'a', kind: 'magnet-pump', parameters: { pull: '3 T' } }] })
    const read = readSheetText(text)
    if (!read.ok) throw new Error(read.problems[0].message)
    expect(check(read.sheet).map((f) => f.message)).toContain(
      'Nothing is known of a component "magnet-pump".',
    )
    expect(JSON.parse(writeSheetText(read.sheet)).components[0].parameters).toEqual({ pull: '3 T' })
  })
  it('names of what every object has are no parameters, kinds or commands', () => {
    const read = readSheetText(
      file({
        components: [
          { id: 'constructor', kind: 'toString' },
          { id: 'b', kind: 'plug', parameters: { hasOwnProperty: '1 bar' } },
        ],
      }),
    )
    if (!read.ok) throw new Error(read.problems[0].message)
    const messages = check(read.sheet).map((f) => f.message)
    expect(messages).toContain('Nothing is known of a component "toString".')
    expect(messages).toContain('Plugged port has no parameter "hasOwnProperty".')
  })
  it('lines that go round in circles are checked and come to an end', () => {
    const junctions = ['a', 'b', 'c'].map((id, i) => ({ id, x: 4 * i, y: i % 2 }))
    const pipes = [
      ['a', 'b'],
      ['b', 'c'],
      ['c', 'a'],
      ['a', 'a'],
    ].map(([from, to], i) => ({ id: `L${i}`, from: { junction: from }, to: { junction: to } }))
    const read = readSheetText(file({ junctions, pipes }))
    if (read.ok) expect(() => check(read.sheet)).not.toThrow()
    else expect(read.problems[0].message).toMatch(/L3/)
  })
  it('words that look like a script stay words, in the file and in the SVG', () => {
    const evil = '</title><script>alert(1)</script>'
    const sheet: Sheet = {
      ...circuit({ ...powerUnit, words: ['note', { text: '<img src=x onerror=alert(1)>' }] }, powerUnitPipes),
      title: evil,
    }
    const svg = sheetToSvg(sheet, showIn('metric'))
    expect(svg).not.toMatch(/<script|<img|onerror=alert\(1\)>/)
    expect(readSvg(svg)).toEqual({ ok: true, sheet })
  })
  it('an SVG of another kind is refused, and nothing of it is run', () => {
    const read = readSvg('<svg onload="alert(1)"><script>alert(1)</script></svg>')
    expect(read.ok || read.problems[0].message).toMatch(/picture only/)
  })
})

describe('texts that would break a drawing', () => {
  const base = addComponent(emptySheet('Plain'), 'fixed-pump').sheet
  const named = (designation: string) => ({
    ...base,
    components: base.components.map((c) => ({ ...c, designation })),
  })
  it.each(['a\n=1', 'a\u0001\bb', 'a\u2028b', 'tab\there', 'half \ud83d'])(
    'are refused with where they stand: %j',
    (text) => {
      for (const sheet of [
        named(text),
        { ...base, title: text },
        { ...base, page: { ...base.page, owner: text } },
      ]) {
        const read = readSheet(JSON.parse(JSON.stringify(sheet)))
        expect(read.ok).toBe(false)
        expect(!read.ok && read.problems[0].message).toMatch(/line break or a control character/)
        expect(!read.ok && read.problems[0].message).toMatch(/designation|title|owner/)
      }
    },
  )
  it('may be words of several lines on the sheet, but nothing else', () => {
    const { sheet } = addComponent(base, 'note', { parameters: { text: 'LINES' } })
    const note = (text: string) =>
      readSheet(JSON.parse(JSON.stringify(sheet).replace('"LINES"', () => JSON.stringify(text)))).ok
    expect(note('two\nlines')).toBe(true)
    expect(note('bell\u0007')).toBe(false)
  })
})
