import { nameOf } from '../../sheet/schema'
import { passes, refsIn } from '../expression'
import { targetsOf, type Program } from '../program'
import type { ControlRule } from './rule'

/** Relays that hang on each other in a ring, and contacts from outside, of which every combination is tried. */
const MOST_RELAYS = 8
const MOST_CONTACTS = 10

export const relayNeverRests: ControlRule = {
  id: 'relay-never-rests',
  reason: 'A relay that breaks its own coil goes on and off as fast as it can until it is worn out.',
  check({ read: { program } }) {
    return ringsOf(program).flatMap((ring) => {
      const names = ring.map((i) => nameOf(program.devices[i].device))
      if (!neverRests(program, ring)) return []
      const period = ring.reduce((sum, i) => {
        const { pullIn = 0, dropOut = 0 } = program.devices[i].values as { pullIn?: number; dropOut?: number }
        return sum + pullIn + dropOut
      }, 0)
      const coils = ring.flatMap((i) => targetsOf(program, i))
      const path = program.paths.find((p) => p.coils.some((c) => coils.includes(c)))
      return [
        {
          severity: 'warning' as const,
          message: `${names.join(' and ')} can never come to rest: ${names.length > 1 ? 'they break each other’s coils' : 'it breaks its own coil'}, about ${(1 / period).toFixed(0)} times a second.`,
          remedy: 'Find the normally closed contact in the ring; a timer makes a lamp flash.',
          location: { control: path?.id ?? program.devices[ring[0]].device.id },
        },
      ]
    })
  },
}

const expressionsFor = (program: Program, device: number) => {
  const coils = targetsOf(program, device)
  return program.paths.filter((p) => p.coils.some((c) => coils.includes(c))).map((p) => p.expression)
}

/** Relays of which each depends on itself, alone or through others of the ring; timers end a ring, for they flash on purpose. */
function ringsOf(program: Program): number[][] {
  const relays = program.devices.flatMap(({ type }, i) => (type.settlesAtStart ? [i] : []))
  const asks = new Map(
    relays.map((i) => [
      i,
      new Set(
        expressionsFor(program, i)
          .flatMap(refsIn)
          .flatMap((ref) => {
            const source = program.sources.get(ref)
            return source?.from === 'device' && relays.includes(source.device) ? [source.device] : []
          }),
      ),
    ]),
  )
  const reaches = (from: number) => {
    const seen = new Set<number>()
    const visit = (i: number) => {
      for (const next of asks.get(i) ?? [])
        if (!seen.has(next)) {
          seen.add(next)
          visit(next)
        }
    }
    visit(from)
    return seen
  }
  const reached = new Map(relays.map((i) => [i, reaches(i)]))
  const rings: number[][] = []
  const placed = new Set<number>()
  for (const i of relays) {
    if (placed.has(i) || !reached.get(i)!.has(i)) continue
    const ring = relays.filter((j) => reached.get(i)!.has(j) && reached.get(j)!.has(i))
    ring.forEach((j) => placed.add(j))
    rings.push(ring)
  }
  return rings
}

/** Whether contacts from outside can stand so that no state of the ring is one of rest. */
function neverRests(program: Program, ring: readonly number[]): boolean {
  const own = new Set(ring.map((i) => program.devices[i].device.id))
  const outside = [
    ...new Set(
      ring.flatMap((i) => expressionsFor(program, i).flatMap(refsIn)).filter((ref) => !own.has(ref)),
    ),
  ]
  if (ring.length > MOST_RELAYS || outside.length > MOST_CONTACTS) return false
  for (let x = 0; x < 1 << outside.length; x++) {
    const given = new Map(outside.map((ref, n) => [ref, (x >> n) % 2 === 1]))
    let rests = false
    for (let s = 0; s < 1 << ring.length && !rests; s++) {
      const state = new Map(ring.map((i, n) => [program.devices[i].device.id, (s >> n) % 2 === 1]))
      const closed = (ref: string) => state.get(ref) ?? given.get(ref)
      rests = ring.every((i, n) => {
        const currents = expressionsFor(program, i).map((e) => passes(e, closed))
        return currents.some((c) => c === true) === ((s >> n) % 2 === 1)
      })
    }
    if (!rests) return true
  }
  return false
}
