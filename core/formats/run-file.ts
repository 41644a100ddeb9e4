/**
 * A run as bytes, as it is kept: length of the head (u32, little endian), the head as JSON in
 * UTF-8, padding to a multiple of eight, the sample times as f64, the columns as f32.
 */
import { z } from 'zod'
import { actionSchema } from '../simulate/actions'
import type { RunEvent, RunResult } from '../simulate/result'
import { quantityNames, type Quantity } from '../units/quantities'

const quantity = z.enum(quantityNames as [Quantity, ...Quantity[]])
const name = z.string().max(200)
const number = z.number()
const optionalName = name.optional()
const extremes = z.object({ min: number, minAt: number, max: number, maxAt: number, end: number })

/** Runs that were kept before told an input that changed by text alone: "command = 1". */
function withChange(event: RunEvent): RunEvent {
  const old = event.change || event.source === 'circuit' ? null : /^(\w{1,64}) = (\S{1,40})$/.exec(event.what)
  const value = Number(old?.[2] ?? Number.NaN)
  if (!old || !Number.isFinite(value)) return event
  return { ...event, change: { input: old[1], label: old[1], quantity: 'ratio', value } }
}

export const runHeadSchema = z.object({
  schedule: name,
  duration: number,
  finished: z.boolean(),
  stopped: z
    .object({ message: z.string().max(1000), component: optionalName, pipe: optionalName })
    .optional(),
  // absent in runs that were kept before there were warnings
  warnings: z.array(z.string().max(1000)).default([]),
  samples: z.number().int().min(0).max(1_000_000),
  signals: z
    .array(
      z.object({
        id: name,
        label: name,
        quantity,
        role: z.enum(['pressure', 'flow', 'state', 'input', 'output', 'mode', 'speed', 'position']),
        component: optionalName,
        pipe: optionalName,
        node: z.number().int().optional(),
      }),
    )
    .max(50_000),
  extremes: z.array(extremes),
  conditions: z
    .array(
      z.object({
        name,
        label: name,
        severity: z.enum(['info', 'warning', 'danger']),
        component: optionalName,
        pipe: optionalName,
        node: z.number().int().optional(),
        start: number,
        end: number,
        worst: z.object({ label: name, quantity, value: number, at: number }).optional(),
      }),
    )
    .max(100_000),
  // absent in runs that were kept before they could be worked by hand
  events: z
    .array(
      z
        .object({
          at: number,
          source: z.enum(['circuit', 'schedule', 'control', 'user']),
          component: optionalName,
          what: z.string().max(400),
          change: z
            .object({
              input: name,
              label: z.string().max(200),
              quantity,
              value: number,
              words: z.string().max(400).optional(),
            })
            .optional(),
        })
        .transform(withChange),
    )
    .max(100_000)
    .default([]),
  actions: actionSchema.array().max(100_000).default([]),
  live: z.object({ longestStep: number, held: z.boolean() }).optional(),
  energy: z.object({
    input: number,
    useful: number,
    heat: number,
    stored: number,
    error: number,
    heatBy: z.array(z.object({ id: name, heat: number })),
    missing: z.array(z.object({ id: name, energy: number })).default([]),
  }),
  oil: z.object({ supplied: number, stored: number, error: number }),
  // absent in runs that were kept before lines were watched
  lineLoads: z
    .array(
      z.object({
        pipe: name,
        name,
        model: z.enum(['lossFree', 'friction', 'distributed']),
        flow: number,
        speed: number,
        drop: number,
        at: number,
      }),
    )
    .max(100_000)
    .default([]),
  statistics: z.object({
    steps: number,
    rejected: number,
    evaluations: number,
    jacobians: number,
    factorisations: number,
    events: number,
  }),
  lines: z.array(name),
  lineOfPort: z.record(name, z.number().int()),
  lineOfPipe: z.record(name, z.number().int()),
})
export type RunHead = z.infer<typeof runHeadSchema>

const aligned = (n: number) => Math.ceil(n / 8) * 8

export function encodeRun(result: RunResult): Uint8Array {
  const { times, columns, ...rest } = result
  const text = new TextEncoder().encode(JSON.stringify({ ...rest, samples: times.length }))
  const start = aligned(4 + text.length)
  const bytes = new Uint8Array(start + times.length * 8 + columns.length * times.length * 4)
  new DataView(bytes.buffer).setUint32(0, text.length, true)
  bytes.set(text, 4)
  new Float64Array(bytes.buffer, start, times.length).set(times)
  columns.forEach((column, i) =>
    new Float32Array(bytes.buffer, start + times.length * 8 + i * times.length * 4, times.length).set(column),
  )
  return bytes
}

/** @throws Error with a plain message on bytes that are no run */
export function decodeRun(bytes: Uint8Array): RunResult {
  const bad = () => new Error('These bytes are not a kept run.')
  if (bytes.length < 8) throw bad()
  // a copy, so that the numbers are aligned whatever the bytes came in (the slice of a Buffer of Node is no copy)
  const { buffer } = new Uint8Array(bytes)
  const length = new DataView(buffer).getUint32(0, true)
  if (4 + length > buffer.byteLength) throw bad()
  let data: unknown
  try {
    data = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(new Uint8Array(buffer, 4, length)))
  } catch {
    throw bad()
  }
  const parsed = runHeadSchema.safeParse(data)
  if (!parsed.success) throw bad()
  const { samples, ...head } = parsed.data
  const start = aligned(4 + length)
  const count = head.signals.length
  if (head.extremes.length !== count || buffer.byteLength !== start + samples * 8 + count * samples * 4)
    throw bad()
  return {
    ...head,
    times: new Float64Array(buffer, start, samples),
    columns: head.signals.map(
      (_, i) => new Float32Array(buffer, start + samples * 8 + i * samples * 4, samples),
    ),
  }
}
