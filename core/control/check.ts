/** All that is wrong with the control of a sheet. */
import { subjectOf, type Finding } from '../sheet/finding'
import type { Sheet } from '../sheet/schema'
import { readControl, type ReadControl } from './program'
import { controlRules } from './rules'

/** Findings of the reader, and of the rules where it could be read. Warnings that the sheet accepts come with the reason. */
export function checkControl(sheet: Sheet, read: ReadControl = readControl(sheet)): Finding[] {
  if (read.findings.length) return [...read.findings]
  return controlRules.flatMap((rule) =>
    rule.check({ sheet, read }).map((found): Finding => {
      const accepted = sheet.acceptedWarnings.find(
        (w) => w.rule === rule.id && w.location === subjectOf(found.location),
      )
      return {
        rule: rule.id,
        ...found,
        ...(accepted && found.severity === 'warning' ? { accepted: accepted.reason } : {}),
      }
    }),
  )
}
export const reasonOfControlRule = (rule: string) => controlRules.find((r) => r.id === rule)?.reason
