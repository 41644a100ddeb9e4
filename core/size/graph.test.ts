import { describe, expect, it } from 'vitest'
import { addComponent } from '../sheet/edit'
import { emptySheet, nameOf, type SheetSizing } from '../sheet/schema'
import { agreement, applyAll } from './agreement'
import { applyResult, assignComponents, resultsOf, targetsOf } from './apply'
import { briefSchema, motionSchema, type Brief } from './brief/brief'
import { readBrief } from './brief/read'
import { card, input, step } from './card'
import { freeCard, noDecisions, sizeMachine } from './graph'

/** A press with one cylinder: 60 kN over the last 150 of 600 mm. */
const press = readBrief({
  purpose: 'press',
  values: { stroke: '600 mm', workingPressure: '190 bar', bucklingLength: '1' },
})
const deciding = (values: SheetSizing['values'], more: Partial<SheetSizing> = {}): SheetSizing => ({
  ...noDecisions(),
  values,
  ...more,
})

describe('the sizes of a machine', () => {
  it('name what was given for variables that a card no longer has', () => {
    const values = { 'cylinder-drift@motion': { force: '50 kN', leakage: '30 cm³/min' } }
    const node = sizeMachine(press, deciding(values)).find('cylinder-drift@motion')!
    expect(node.unused).toEqual([{ variable: 'force', text: '50 kN' }])
    expect(node.values.leakage).toBeCloseTo(0.5e-6, 12)
    expect(freeCard(node.card, { force: '50 kN' }).unused).toHaveLength(1)
  })
  it('flow from the brief through the cards', () => {
    const sizing = sizeMachine(press)
    expect(sizing.nodes.flatMap((n) => n.problems)).toEqual([])
    expect(sizing.find('cylinder-bore@motion')!.values.bore).toBeCloseTo(0.08, 9)
    expect(sizing.find('pump-displacement')!.values.displacement).toBeCloseTo(25e-6, 12)
    // 142 bar · 1.1 / 0.94 = 166 → 170
    expect(sizing.find('relief-setting')!.values.setting).toBeCloseTo(170e5, 0)
    // 34.5 L/min at 168 bar and 85 % are 11.4 kW
    expect(sizing.find('electric-motor')!.values.motor).toBeCloseTo(15e3, 6)
    expect(sizing.find('pump-displacement')!.origins.flow).toEqual({
      type: 'cycle',
      label: 'greatest flow of the cycle',
    })
    expect(sizing.find('cylinder-bore@motion')!.origins.maximumPressure).toMatchObject({
      type: 'card',
      node: 'pressure-levels',
    })
    expect(sizing.find('pressure-levels')!.origins.class).toMatchObject({ type: 'brief' })
  })
  it('are none without motions, and say what is missing where the brief is not filled in', () => {
    expect(sizeMachine(briefSchema.parse({})).nodes).toEqual([])
    const bare = briefSchema.parse({ motions: [{ id: 'a', name: 'Clamp', actuator: 'doubleActing' }] })
    const bore = sizeMachine(bare).find('cylinder-bore@a')!
    expect(bore.values.bore).toBeUndefined()
    expect(bore.problems.map((p) => p.message).join()).toContain('see "Pressure levels"')
    expect(sizeMachine(bare).find('pressure-levels')!.problems[0].message).toBe(
      'Pressure class is not given in the brief.',
    )
    expect(sizeMachine(bare).find('linear-load@a')!.problems[0].message).toBe(
      'Stroke or angle of Clamp is not given in the brief.',
    )
    // nothing stands at a default that only an example has
    expect(sizeMachine(bare).find('pump-displacement')!.values.displacement).toBeUndefined()
  })
  it('take a value that a person gives in the place of the computed one, everywhere', () => {
    const larger = sizeMachine(press, deciding({ 'cylinder-bore@motion': { bore: '100 mm' } }))
    expect(larger.find('cylinder-motion@motion')!.values.bore).toBeCloseTo(0.1, 9)
    expect(larger.find('pump-displacement')!.values.displacement).toBeCloseTo(40e-6, 12)
    expect(larger.find('cylinder-bore@motion')!.computed.bore).toBeCloseTo(0.08, 9)
  })
  it('take what holds for all variants from the brief, and what holds for one from its sheet', () => {
    const brief = { ...press, cardValues: { 'cylinder-bore@motion': { bore: '100 mm', lineLoss: '12 bar' } } }
    const { values } = sizeMachine(brief, deciding({ 'cylinder-bore@motion': { bore: '125 mm' } })).find(
      'cylinder-bore@motion',
    )!
    expect([values.bore, values.lineLoss]).toEqual([0.125, 12e5])
  })
  it('solve for any input: with the pump locked, the speed of the shaft', () => {
    const node = sizeMachine(
      press,
      deciding(
        { 'pump-displacement': { displacement: '16 cc', delivered: '30 L/min' } },
        { solved: { 'pump-displacement': { unknown: 'speed', wanted: 'delivered' } } },
      ),
    ).find('pump-displacement')!
    expect(node.origins.speed).toEqual({ type: 'solved' })
    expect((node.values.speed * 60) / (2 * Math.PI)).toBeCloseTo(30000 / (16 * 0.92), 3)
  })
  it('say at the field what does not read or has no solution', () => {
    const wrong = deciding({ 'cylinder-bore@motion': { efficiency: '3 bar', lineLoss: '9000 bar' } })
    const { problems, values } = sizeMachine(press, wrong).find('cylinder-bore@motion')!
    expect(problems.map((p) => p.variable).sort()).toEqual(['efficiency', 'lineLoss'])
    // the values before stand, so that nothing else falls over
    expect(values.bore).toBeCloseTo(0.08, 9)
    const none = deciding(
      { 'cylinder-frequency@motion': { ramp: '1e-9 s' } },
      { solved: { 'cylinder-frequency@motion': { unknown: 'mass', wanted: 'ramp' } } },
    )
    expect(sizeMachine(press, none).find('cylinder-frequency@motion')!.problems[0]).toMatchObject({
      variable: 'mass',
      message: expect.stringContaining('No moved mass'),
    })
  })
  it('open cards by what the brief says', () => {
    const ids = (brief: Brief) => sizeMachine(brief).nodes.map((n) => n.id)
    expect(ids(press)).not.toContain('counterbalance@motion')
    const hanging = { ...press, motions: [{ ...press.motions[0], holding: 'counterbalance' as const }] }
    expect(ids(hanging)).toContain('counterbalance@motion')
    expect(ids({ ...press, supply: 'loadSensing' })).toContain('load-sensing')
    expect(ids({ ...press, supply: 'highLow' })).not.toContain('pump-displacement')
    const decided = sizeMachine(
      press,
      deciding({}, { supply: 'highLow', added: ['water-hammer'], hidden: ['oil-viscosity'] }),
    ).nodes.map((n) => n.id)
    expect(decided).toContain('water-hammer')
    expect(decided).not.toContain('oil-viscosity')
    expect(decided).toContain('high-low-pump')
  })
  it('add up several motions and name the one that counts', () => {
    const second = motionSchema.parse({
      id: 'lift',
      name: 'Lift',
      actuator: 'doubleActing',
      values: { stroke: '1 m', outTime: '10 s', mass: '3 t', slope: '90 °', backTime: '10 s' },
    })
    const both: Brief = {
      ...press,
      motions: [...press.motions, second],
      cycle: [...press.cycle, { id: 'l', motion: 'lift', way: 'out', start: 'after', condition: '' }],
    }
    const sizing = sizeMachine(both, deciding({}, { added: ['sequence-setting'] }))
    const difference = (id: string) => sizing.find(`cylinder-volumes@${id}`)!.values.difference
    expect(sizing.find('tank-volume')!.values.difference).toBeCloseTo(
      difference('motion') + difference('lift'),
      12,
    )
    expect(sizing.find('high-low-pump')).toBeUndefined()
    expect(sizing.find('sequence-setting')!.origins.moving).toMatchObject({
      type: 'card',
      node: 'cylinder-motion@lift',
    })
  })
  it('of motors and winches go the same way', () => {
    const turn = briefSchema.parse({
      values: { maximumPressure: '160 bar' },
      supply: 'closedCircuit',
      motions: [
        {
          id: 'w',
          name: 'Haul',
          actuator: 'winch',
          values: {
            stroke: '60 m',
            outSpeed: '12 m/min',
            backSpeed: '12 m/min',
            forceOut: '20 kN',
            drum: '400 mm',
            gear: '20',
          },
        },
      ],
      cycle: [{ id: '1', motion: 'w', way: 'out' }],
    })
    const sizing = sizeMachine(turn)
    expect(sizing.find('winch-load@w')!.values.motorTorqueOut).toBeCloseTo(4000 / 18, 6)
    const motor = sizing.find('motor-displacement@w')!.values
    // 160 bar leave 160 · 0.94 / 1.1 − 25 = 111.7 bar; 2 · π · 222.2 / (91.7e5 · 0.75), started under load = 203 → 250 cm³
    expect(motor.displacement).toBeCloseTo(250e-6, 12)
    expect(sizing.find('closed-circuit-pump')!.values.flow).toBeCloseTo(motor.flowOut, 12)
    expect(sizing.cycle.pressure).toBeCloseTo(motor.pressureOut, 0)
  })
  it('never take a default in the place of a source that has no value', () => {
    // no displacement is large enough: what follows from the pump is not known either
    const huge = sizeMachine(press, deciding({ 'pump-displacement': { spare: '200 %', speed: '10 rpm' } }))
    expect(huge.find('pump-displacement')!.problems).not.toEqual([])
    const motor = huge.find('electric-motor')!
    expect(motor.values.shaftPower).toBeUndefined()
    expect(motor.problems.map((p) => p.message)).toContain('Flow delivered is not known: see "Pump".')
  })
  it('stop where cards would need each other', () => {
    const make = (id: string, from: string) =>
      card({
        id,
        title: id,
        group: 'load',
        scope: 'machine',
        about: 'A card.',
        source: 'test',
        answer: 'y',
        variables: {
          x: input('x', 'X', 'ratio', '1', 0, 10, { from, required: true }),
          y: step('y', 'Y', 'ratio', 'x + 1'),
        },
      })
    const cards = [make('a', 'b.y'), make('b', 'a.y')]
    const sizing = sizeMachine(press, undefined, { cards })
    expect(sizing.nodes.every((n) => n.problems.length === 1 && n.values.y === undefined)).toBe(true)
  })
})

describe('a card by itself', () => {
  it('is a calculator with its defaults', () => {
    const node = freeCard(sizeMachine(press).find('cylinder-bore@motion')!.card, {
      force: '110 kN',
      efficiency: 'x',
    })
    expect(node.values.bore).toBeCloseTo(0.125, 9)
    expect(node.origins.force).toEqual({ type: 'given' })
    expect(node.problems[0].variable).toBe('efficiency')
    const { card } = sizeMachine(press).find('line-pressure')!
    const solved = freeCard(card, { speed: '4 m/s', bore: '13 mm' }, { unknown: 'flow', wanted: 'speed' })
    // 4 m/s through 13 mm
    expect(solved.values.flow).toBeCloseTo((4 * Math.PI * 0.013 ** 2) / 4, 9)
    expect(solved.origins.flow).toEqual({ type: 'solved' })
  })
})

describe('results on the sheet', () => {
  let sheet = emptySheet('s')
  for (const kind of ['cylinder-double-acting', 'fixed-pump', 'relief-valve-direct', 'electric-motor'])
    sheet = addComponent(sheet, kind, { x: 0, y: 0 }).sheet
  const sizing = sizeMachine(press)
  it('go to the only component that takes them', () => {
    expect(agreement(sheet, press, sizing).agreeing).toBeLessThan(agreement(sheet, press, sizing).sized)
    const { sheet: applied } = applyAll(sheet, press, sizing)
    const { sized, agreeing } = agreement(applied, press, sizing)
    expect(agreeing).toBe(sized)
    const cylinder = applied.components.find((c) => c.kind === 'cylinder-double-acting')!
    expect(cylinder.parameters.bore).toBe('80 mm')
    const larger = { ...applied, sizing: deciding({ 'cylinder-bore@motion': { bore: '100 mm' } }) }
    expect(agreement(larger, press, sizeMachine(press, larger.sizing)).agreeing).toBeLessThan(sized)
  })
  it('are left out where the component cannot have them', () => {
    const node = sizing.find('cylinder-bore@motion')!
    const [result] = resultsOf(node)
    const tiny = { ...result, value: 1e-5 }
    const [target] = targetsOf(sheet, press, tiny)
    expect(target.possible).toBe(false)
    expect(applyResult(sheet, target, tiny)).toBe(sheet)
    expect(targetsOf(sheet, press, result)[0].possible).toBe(true)
  })
  it('wait for a choice where several could take them', () => {
    const more = addComponent(sheet, 'fixed-pump', { x: 20, y: 0 }).sheet
    const node = sizing.find('pump-displacement')!
    const [result] = resultsOf(node)
    const targets = targetsOf(more, press, result)
    expect(targets.map((t) => t.assigned)).toEqual([false, false])
    const name = nameOf(targets[1].component)
    const after = targetsOf(assignComponents(more, result, [name]), press, result)
    expect(after.filter((t) => t.assigned).map((t) => nameOf(t.component))).toEqual([name])
  })
  it('one by one', () => {
    const [result] = resultsOf(sizing.find('cylinder-buckling@motion')!)
    const [target] = targetsOf(sheet, press, result)
    const applied = applyResult(sheet, target, result)
    expect(applied.components.find((c) => c.id === target.component.id)!.parameters.rod).toBe('45 mm')
  })
})
