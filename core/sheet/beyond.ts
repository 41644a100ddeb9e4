/** What lies beyond an end of a pipe: the ends of pipes, as keys, that other pipes join to it. */

/** A pipe by the keys of its two ends. */
export interface PipeEnds {
  readonly ends: readonly [string, string]
}

/** Pipes by each key at which they end. */
export function pipesByEnd<P extends PipeEnds>(pipes: readonly P[]): ReadonlyMap<string, readonly P[]> {
  const joined = new Map<string, P[]>()
  for (const pipe of pipes) for (const key of pipe.ends) joined.set(key, [...(joined.get(key) ?? []), pipe])
  return joined
}

/**
 * The keys beyond one end of a pipe, that end included; nothing where the other pipes lead back to its other end: in a ring the flow of a
 * pipe is not determined.
 */
export function keysBeyond<P extends PipeEnds>(
  pipe: P,
  end: 0 | 1,
  joined: ReadonlyMap<string, readonly P[]>,
): ReadonlySet<string> | undefined {
  const seen = new Set([pipe.ends[end]])
  for (const key of seen)
    for (const next of joined.get(key) ?? [])
      if (next !== pipe) seen.add(next.ends[0] === key ? next.ends[1] : next.ends[0])
  return seen.has(pipe.ends[1 - end]) ? undefined : seen
}
