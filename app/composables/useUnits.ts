import { createSharedComposable } from '@vueuse/core'
import { shownUnit, type Quantity, type UnitSystem } from '@oar-bench/core/units/quantities'
import { showNumber, showQuantity } from '@oar-bench/core/units/text'
import { useSetting } from './useSetting'

/** The unit system in use, and values written in it. One for the whole application. */
export const useUnits = createSharedComposable(() => {
  const system = useSetting<UnitSystem>('units', 'metric')
  return {
    system,
    show: (si: number, quantity: Quantity, digits = 4) => showQuantity(si, quantity, system.value, digits),
    number: (si: number, quantity: Quantity, digits = 4) => showNumber(si, quantity, system.value, digits),
    unit: (quantity: Quantity) => shownUnit(quantity, system.value).symbol,
  }
})
