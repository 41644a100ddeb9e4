/**
 * Remembers what was worked out from a thing that never changes: an edit makes new components, pipes and lists of what it
 * changes and keeps the others, so most of a sheet is known from the step before.
 */
export function memoized<K extends object, V>(work: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>()
  return (key) => {
    if (!known.has(key)) known.set(key, work(key))
    return known.get(key)!
  }
}
