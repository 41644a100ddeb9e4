/** Explores the states of a control outside the main thread, in batches; it can be cancelled between two of them. */
import './zodConfig'
import { expose } from 'comlink'
import type { Proof } from '@oar-bench/core/control/explore'
import { Prover as ControlProver } from '@oar-bench/core/control/prove'
import type { Sheet } from '@oar-bench/core/sheet/schema'

const STATES_IN_A_TURN = 200
/** Time between two looks at how the claims stand, ms. */
const SHOWN_EVERY = 1000
let ending = false

const prover = {
  /**
   * @param progress called with the number of states seen, and from time to time with how the claims stand
   * @returns the proofs, or the message of what prevents them
   */
  async prove(
    sheet: Sheet,
    progress: (states: number, proofs?: Proof[]) => void,
  ): Promise<{ proofs: Proof[]; problem?: string }> {
    ending = false
    try {
      const prover = new ControlProver(sheet)
      let shown = performance.now()
      while (!prover.done && !ending) {
        prover.explore(STATES_IN_A_TURN)
        const isDue = performance.now() - shown > SHOWN_EVERY
        void progress(prover.states, isDue ? prover.proofs() : undefined)
        if (isDue) shown = performance.now()
        await new Promise((resolve) => setTimeout(resolve))
      }
      return { proofs: prover.proofs() }
    } catch (error) {
      return { proofs: [], problem: (error as Error).message }
    }
  },
  end(): void {
    ending = true
  },
}
export type Prover = typeof prover
expose(prover)
