import { useLocalStorage } from '@vueuse/core'
import { shownUnit, type Quantity, type UnitSystem } from '@oar-bench/core/units/quantities'
import { showNumber, showQuantity } from '@oar-bench/core/units/text'

const system = useLocalStorage<UnitSystem>('oar-bench-units', 'metric')

/** The unit system in force, and values written in it. One for the whole application. */
export function useUnits() {
  return {
    system,
    show: (si: number, quantity: Quantity, digits = 4) => showQuantity(si, quantity, system.value, digits),
    number: (si: number, quantity: Quantity, digits = 4) => showNumber(si, quantity, system.value, digits),
    unit: (quantity: Quantity) => shownUnit(quantity, system.value).symbol,
  }
}
