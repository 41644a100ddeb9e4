/** Series of sizes that were added to the standard ones; they belong to the workspace. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { seriesInForce } from '@oar-bench/core/size/own-series'
import type { OwnSeries } from '#shared/api'
import { failureMessage } from '../utils/messages'

export const useOwnSeries = defineStore('ownSeries', () => {
  const list = shallowRef<readonly OwnSeries[]>([])
  /** Why something could not be done; empty where there is nothing to say. */
  const message = shallowRef('')
  /** What sizes are chosen from. */
  const inForce = computed(() => seriesInForce(list.value))

  /** Takes the answer of the server; where there is none, what is there stays. */
  async function take(answer: Promise<OwnSeries[]>, failure: string): Promise<boolean> {
    try {
      list.value = await answer
      message.value = ''
      return true
    } catch (error) {
      message.value = `${failure} ${failureMessage(error)}`
      return false
    }
  }
  const load = () => take($fetch<OwnSeries[]>('/api/series'), 'The series of sizes could not be read.')
  /** Adds series; one with the name of another takes its place. */
  const add = (series: readonly OwnSeries[]) =>
    take($fetch<OwnSeries[]>('/api/series', { method: 'PUT', body: { series } }), 'Nothing was added.')
  const remove = (name: string) =>
    take(
      $fetch<OwnSeries[]>(`/api/series/${encodeURIComponent(name)}`, { method: 'DELETE' }),
      'It was not taken away.',
    )
  return { list, message, inForce, load, add, remove }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useOwnSeries, import.meta.hot))
