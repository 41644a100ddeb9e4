/** Explores the states of a control outside the main thread, in batches; it can be cancelled between two of them. */
import './zodConfig'
import { expose } from 'comlink'
import { Explorer, type Proof } from '@oar-bench/core/control/explore'
import type { Sheet } from '@oar-bench/core/sheet/schema'

const STATES_IN_A_TURN = 200
let ending = false

const prover = {
  /** @param progress called with the number of states seen @returns the proofs, or the message of what prevents them */
  async prove(
    sheet: Sheet,
    progress: (states: number) => void,
  ): Promise<{ proofs: Proof[]; problem?: string }> {
    ending = false
    try {
      const explorer = new Explorer(sheet)
      while (!explorer.done && !ending) {
        explorer.explore(STATES_IN_A_TURN)
        void progress(explorer.states)
        await new Promise((resolve) => setTimeout(resolve))
      }
      return { proofs: explorer.proofs() }
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
