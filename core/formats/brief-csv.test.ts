import { describe, expect, it } from 'vitest'
import { briefSchema } from '../size/brief/brief'
import { briefRows, readBriefCsv } from './brief-csv'
import { csv } from './csv'

const brief = briefSchema.parse({
  purpose: 'kept',
  values: { maximumPressure: '160 bar' },
  motions: [
    {
      id: 'a',
      name: 'Clamp, left',
      actuator: 'doubleActing',
      designation: '1-1A1',
      people: true,
      values: { stroke: '400 mm', outTime: '2.5 s' },
      loadTable: [
        ['0 mm', '1 kN'],
        ['200 mm', '5 kN'],
      ],
    },
    { id: 'b', name: 'Turn', actuator: 'motor', holding: 'brake', values: { angle: '180 °' } },
  ],
  cycle: [
    { id: '1', motion: 'a', way: 'out', condition: 'lid; closed' },
    { id: '2', way: 'wait', duration: '3 s' },
    { id: '3', motion: 'b', way: 'out', start: 'with', delay: '1 s' },
  ],
})

describe('motions as a table', () => {
  it.each([
    { separator: ',', decimal: '.' },
    { separator: ';', decimal: ',' },
    { separator: '\t', decimal: '.' },
  ] as const)('are read back as they were written, with %j', (style) => {
    const empty = { ...brief, motions: [], cycle: [] }
    expect(readBriefCsv(csv(briefRows(brief), style), empty)).toEqual({ brief })
  })
  it.each([
    ['', 'empty'],
    ['a,b\n1,2', 'heading'],
    ['motion,colour\na,red', 'no column "colour"'],
    ['motion,actuator\na,lever', 'the actuator is one of'],
    ['motion,actuator\na,toString', 'the actuator is one of'],
    ['motion,work way\na,sideways', 'work way is one of'],
    ['motion,speed control\na,constructor', 'speed control is one of'],
    ['motion,holding\na,hope', 'Row 2: holding is one of'],
    ['motion,stroke\na,10 bar', 'unit of pressure'],
    ['motion,load table\na,5 kN', 'load table is written'],
    ['motion\na\nstep,motion,way\n1,z,out', 'names no motion'],
    ['motion\na\nstep,motion,way\n1,a,up', 'cycle.0.way'],
  ])('%j is refused', (text, words) => {
    const read = readBriefCsv(text, brief)
    expect('message' in read && read.message).toContain(words)
  })
})
