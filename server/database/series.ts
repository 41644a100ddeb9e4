/** Series of sizes of the workspace. */
import { asc, eq } from 'drizzle-orm'
import { ownSeriesSchema, type OwnSeries } from '../../core/size/own-series'
import type { Store } from './open'
import { ownSeries, sheetSummaries } from './schema'

/** The series by name. One that does not read, as a newer program may have written it, is left out. */
export const listSeries = (store: Pick<Store, 'select'>): OwnSeries[] =>
  store
    .select()
    .from(ownSeries)
    .orderBy(asc(ownSeries.name))
    .all()
    .flatMap(({ content }) => {
      const read = ownSeriesSchema.safeParse(JSON.parse(content))
      return read.success ? [read.data] : []
    })

/** Adds series; one with the name of another takes its place. */
export function putSeries(store: Pick<Store, 'transaction'>, list: readonly OwnSeries[]): void {
  store.transaction((tx) => {
    for (const series of list) {
      const content = JSON.stringify(series)
      tx.insert(ownSeries)
        .values({ name: series.name, content })
        .onConflictDoUpdate({ target: ownSeries.name, set: { content } })
        .run()
    }
    // how many values agree with the sizes is to be counted anew
    tx.update(sheetSummaries).set({ revision: 0 }).run()
  })
}

/** @returns whether there was one */
export function deleteSeries(store: Store, name: string): boolean {
  return store.transaction((tx) => {
    const found = tx.delete(ownSeries).where(eq(ownSeries.name, name)).run().changes > 0
    if (found) tx.update(sheetSummaries).set({ revision: 0 }).run()
    return found
  })
}
