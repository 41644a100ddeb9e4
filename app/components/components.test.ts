/** Components that ask the person something, mounted on their own. */
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { useSaving } from '../stores/saving'
import { useSheetDocument } from '../stores/sheetDocument'
import { fakeServer } from '../testing/fakeServer'
import DraftOffer from './DraftOffer.vue'
import FixButton from './FixButton.vue'
import QuantityField from './QuantityField.vue'

beforeEach(() => {
  setActivePinia(createPinia())
  fakeServer().stub()
})

describe('DraftOffer', () => {
  const draft = { machineId: 'm', sheetId: 's', tab: 'other', at: 0, sheet: emptySheet('Draft') }
  it('restores a draft as a step of undo', async () => {
    useSaving().offered = [draft]
    const offer = mount(DraftOffer)
    expect(offer.text()).toContain('were not saved')
    await offer.find('button').trigger('click')
    expect(useSheetDocument().sheet.title).toBe('Draft')
    expect(useSheetDocument().canUndo).toBe(true)
    expect(offer.find('section').exists()).toBe(false)
  })
  it('discards one at the second press only', async () => {
    useSaving().offered = [draft]
    const offer = mount(DraftOffer)
    const discard = offer.findAll('button')[1]
    await discard.trigger('click')
    expect(useSaving().offered).toHaveLength(1)
    expect(discard.text()).toBe('Really discard them')
    await discard.trigger('blur')
    expect(discard.text()).toBe('Discard them')
    await discard.trigger('click')
    await discard.trigger('click')
    await vi.waitFor(() => expect(useSaving().offered).toHaveLength(0))
  })
})

describe('QuantityField', () => {
  const field = () =>
    mount(QuantityField, { props: { modelValue: '160 bar', quantity: 'pressure', label: 'Setting' } })
  it('takes any unit of its quantity, and the shown one where none is typed', async () => {
    const input = field()
    const element = input.find('input')
    expect(element.element.value).toBe('160 bar')
    await element.setValue('2 MPa')
    await element.trigger('change')
    await element.setValue('90')
    await element.trigger('change')
    expect(input.emitted('update:modelValue')).toEqual([['2 MPa'], ['90 bar']])
  })
  it('keeps what is typed and says what is wrong with it; Escape takes it back', async () => {
    const input = field()
    const element = input.find('input')
    await element.setValue('12 mm')
    await element.trigger('change')
    expect(input.find('[role=alert]').text()).toMatch(/mm/)
    expect(element.element.value).toBe('12 mm')
    expect(input.emitted('update:modelValue')).toBeUndefined()
    await element.trigger('keydown.esc')
    expect(element.element.value).toBe('160 bar')
    expect(input.find('[role=alert]').exists()).toBe(false)
  })
})

it('FixButton carries out its fix as one step', async () => {
  const sheetDocument = useSheetDocument()
  const server = fakeServer()
  server.sheet.content = {
    ...emptySheet('x'),
    junctions: [{ id: 'J1', x: 0, y: 0 }],
  }
  sheetDocument.open(server.detail())
  const button = mount(FixButton, { props: { fix: { label: 'Delete it', does: 'remove', ids: ['J1'] } } })
  expect(button.text()).toBe('Delete it')
  await button.trigger('click')
  expect(sheetDocument.sheet.junctions).toEqual([])
  sheetDocument.undo()
  expect(sheetDocument.sheet.junctions).toHaveLength(1)
})
