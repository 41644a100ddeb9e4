/** The design rules. Each is a module of its own; this list is the only place that knows them all. */
import { motionWithoutSource } from './motion-without-source'
import { noReturnPath } from './no-return-path'
import { reliefShutOff } from './relief-shut-off'
import { suctionRestricted } from './suction-restricted'
import { counterbalanceBackPressure } from './counterbalance-back-pressure'
import { opensTooLow } from './opens-too-low'
import { reliefOrder } from './relief-order'
import { motorRunsEmpty, motorWithoutRelief } from './motor-shut-in'
import { loadRunsAway } from './load-runs-away'
import { intensified } from './intensified'
import { chargeOfLoop, loopWithoutCharge, loopWithoutRelief } from './closed-circuit'
import { heldOpen } from './held-open'
import { holdsBackwards } from './holds-backwards'
import { holdsTooLittle, pilotTooWeak } from './holding'
import { singleHoldingValve } from './single-holding-valve'
import { beyondRatedFlow } from './beyond-rated-flow'
import { buckling } from './buckling'
import { unitMistake } from './unit-mistake'
import { subjectOf, type Finding } from '../sheet/finding'
import { deadEnd } from './dead-end'
import { imposedTwice } from './imposed-twice'
import { noTank } from './no-tank'
import { openPort } from './open-port'
import { pumpWithoutRelief } from './pump-without-relief'
import { reversedCheck } from './reversed-check'
import { chargeTooHigh } from './charge-too-high'
import { drainUnderPressure } from './drain-under-pressure'
import { narrowSuction } from './narrow-suction'
import { noUnloadingPath } from './no-unloading-path'
import { centreSuitsPump, reliefBelowCompensator } from './centre-suits-pump'
import { contamination } from './contamination'
import { lineThroughSymbol, symbolOnSymbol } from './drawing'
import { idlePort } from './idle-port'
import { loadSinks } from './load-sinks'
import { neverFills } from './never-fills'
import { pipeAboveRating } from './pipe-above-rating'
import { switchNeverTrips } from './switch-never-trips'
import { designationTwice, onePart } from './designations'
import { opensTooHigh } from './opens-too-high'
import { pilotWithoutSource } from './pilot-without-source'
import { gaugeRange } from './gauge-range'
import { ratingBelowSetting } from './rating-below-setting'
import { storageWithoutBlock } from './storage-without-block'
import type { RefusingRule, Rule, Subject } from './rule'

export const rules: readonly (Rule | RefusingRule)[] = [
  openPort,
  deadEnd,
  noTank,
  pumpWithoutRelief,
  imposedTwice,
  reversedCheck,
  drainUnderPressure,
  pilotWithoutSource,
  opensTooHigh,
  ratingBelowSetting,
  gaugeRange,
  storageWithoutBlock,
  chargeTooHigh,
  narrowSuction,
  noUnloadingPath,
  reliefShutOff,
  noReturnPath,
  motionWithoutSource,
  suctionRestricted,
  counterbalanceBackPressure,
  opensTooLow,
  reliefOrder,
  motorWithoutRelief,
  motorRunsEmpty,
  loadRunsAway,
  intensified,
  loopWithoutCharge,
  loopWithoutRelief,
  holdsTooLittle,
  pilotTooWeak,
  heldOpen,
  holdsBackwards,
  singleHoldingValve,
  beyondRatedFlow,
  buckling,
  unitMistake,
  centreSuitsPump,
  reliefBelowCompensator,
  idlePort,
  neverFills,
  chargeOfLoop,
  loadSinks,
  contamination,
  pipeAboveRating,
  switchNeverTrips,
  lineThroughSymbol,
  symbolOnSymbol,
  designationTwice,
  onePart,
]

/** Those whose errors keep a sheet from running: nothing else need be asked for a run. */
export const refusingRules = rules.filter((rule): rule is RefusingRule => 'refuses' in rule)

/** Runs all rules, or some. Warnings that the sheet accepts come with the reason for it; an error cannot be accepted. */
export function checkDesign(subject: Subject, which: readonly (Rule | RefusingRule)[] = rules): Finding[] {
  return which.flatMap((rule) =>
    rule.check(subject).map((found): Finding => {
      const accepted = subject.sheet.acceptedWarnings.find(
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

/** Why a rule matters. */
export const reasonOf = (rule: string) => rules.find((r) => r.id === rule)?.reason
