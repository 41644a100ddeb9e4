/**
 * A function that computes a value for an object once and keeps it as long as the object exists. Sheets are never changed in place, so
 * what was computed for a component or a pipe that an edit has left alone stays valid.
 */
export function memoized<K extends object, V>(work: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>()
  return (key) => {
    if (!known.has(key)) known.set(key, work(key))
    return known.get(key)!
  }
}
