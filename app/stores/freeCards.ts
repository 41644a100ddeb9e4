/** Cards that stand by themselves, as calculators: what was typed into them, kept while the application is open. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { cards } from '@oar-bench/core/size/cards'
import { freeCard, type Solved } from '@oar-bench/core/size/graph'
import { useOwnSeries } from './ownSeries'

interface Typed {
  readonly values: Readonly<Record<string, string>>
  readonly solved?: Solved
}

export const useFreeCards = defineStore('freeCards', () => {
  const ownSeries = useOwnSeries()
  const typed = shallowRef<Readonly<Record<string, Typed>>>({})
  const of = (card: string): Typed => typed.value[card] ?? { values: {} }
  const put = (card: string, next: Typed) => (typed.value = { ...typed.value, [card]: next })
  const nodes = computed(() =>
    cards.map((card) => freeCard(card, of(card.id).values, of(card.id).solved, ownSeries.inForce)),
  )

  const withValue = (values: Typed['values'], variable: string, text: string | undefined) =>
    Object.fromEntries(
      Object.entries({ ...values, [variable]: text?.trim() ?? '' }).filter(([, value]) => value),
    )
  /** Puts a value in the place of the example, or takes it back; what was solved with it goes as well. */
  function setValue(card: string, variable: string, text: string | undefined): void {
    const { values, solved } = of(card)
    const loosens = solved?.unknown === variable || (solved?.wanted === variable && !text)
    put(card, { values: withValue(values, variable, text), solved: loosens ? undefined : solved })
  }
  /** Solves an input for a wanted result, or stops doing so. */
  function solve(card: string, wish: { unknown: string; wanted: string; value: string } | undefined): void {
    const { values } = of(card)
    if (!wish) return void put(card, { values })
    const { unknown, wanted, value } = wish
    put(card, {
      values: withValue(withValue(values, wanted, value), unknown, undefined),
      solved: { unknown, wanted },
    })
  }
  const writtenOf = (card: string, variable: string) => of(card).values[variable] ?? ''
  const solvedOf = (card: string) => of(card).solved
  return { nodes, setValue, solve, writtenOf, solvedOf }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useFreeCards, import.meta.hot))
