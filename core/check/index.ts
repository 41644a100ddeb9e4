/** The design rules. Each is a module of its own; this list is the only place that knows them all. */
import type { Finding } from '../sheet/finding'
import { deadEnd } from './dead-end'
import { heldTwice } from './held-twice'
import { noTank } from './no-tank'
import { openPort } from './open-port'
import { pumpWithoutRelief } from './pump-without-relief'
import { reversedCheck } from './reversed-check'
import type { Rule, Subject } from './rule'

export const rules: readonly Rule[] = [openPort, deadEnd, noTank, pumpWithoutRelief, heldTwice, reversedCheck]

export const checkDesign = (subject: Subject): Finding[] =>
  rules.flatMap((rule) => rule.check(subject).map((found) => ({ rule: rule.id, ...found })))
