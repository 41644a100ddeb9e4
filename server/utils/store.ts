import { openDatabase, type Store } from '../database/open'
import { migrations } from '#migrations'

let store: Store | undefined

/** The database of this server. */
export function useStore(): Store {
  store ??= openDatabase(useRuntimeConfig().dataFolder, migrations).db
  return store
}
