/** A remark about a sheet, at the place it concerns. */
export interface Location {
  readonly component?: string
  readonly port?: string
  readonly parameter?: string
  readonly pipe?: string
  readonly junction?: string
  readonly schedule?: string
  /** A device, a path, a sequence or a requirement of the control. */
  readonly control?: string
}
/** A change of the sheet that a finding offers, as data: see `applyFix`. */
export type Fix = { readonly label: string } & (
  | { readonly does: 'swapPorts'; readonly component: string }
  | { readonly does: 'plug'; readonly component: string; readonly port: string }
  | {
      readonly does: 'setParameter'
      readonly component: string
      readonly parameter: string
      readonly value: string
    }
  | {
      readonly does: 'setPipe'
      readonly pipe: string
      readonly field: 'bore' | 'length'
      readonly value: string
    }
  | { readonly does: 'remove'; readonly ids: readonly string[] }
)

export interface Finding {
  /** Which rule found it. */
  readonly rule: string
  /** An error keeps the sheet from running; a warning does not. */
  readonly severity: 'error' | 'warning'
  readonly message: string
  /** What to do about it. */
  readonly remedy?: string
  readonly location: Location
  /** Something is not drawn yet: of no concern while drawing goes on, and an error when a run is requested. */
  readonly incomplete?: true
  /** A change that remedies it and that cannot do harm, where there is one. */
  readonly fix?: Fix
  /** Why somebody accepts it, where somebody does. */
  readonly accepted?: string
}

/** What a finding is about, by which a sheet remembers that it is accepted: the id of a part, or of something in the control, or nothing for the whole sheet. */
export const subjectOf = (place: Location) =>
  place.component ?? place.pipe ?? place.junction ?? place.control ?? ''

/** The place in words, for messages without a drawing beside them. */
export function locationText(place: Location): string {
  if (place.component) return [place.component, place.port ?? place.parameter].filter(Boolean).join('.')
  if (place.pipe) return `pipe ${place.pipe}`
  if (place.junction) return `junction ${place.junction}`
  if (place.control) return `control ${place.control}`
  if (place.schedule) return `schedule ${place.schedule}`
  return 'sheet'
}
