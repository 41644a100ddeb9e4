import type { Annotations } from '@oar-bench/core/sheet/schema'

/** What a sheet shows beside its symbols by choice, as it is named on the screen. */
export const annotationSwitches = {
  ports: 'Port letters',
  coils: 'Coil letters',
  pipes: 'Pipe sizes',
  rotation: 'Arrows of rotation',
  fluid: 'Fluid and tank',
} as const satisfies Record<Exclude<keyof Annotations, 'designations'>, string>
export type AnnotationSwitch = keyof typeof annotationSwitches
