/** A question whose answer takes time: only the last one asked counts. */
import { onScopeDispose, ref, shallowRef } from 'vue'

export function useLatest<T>() {
  const answer = shallowRef<T>()
  const busy = ref(false)
  const problem = ref('')
  let turn = 0
  /** What was asked before no longer counts. */
  function cancel(): void {
    turn++
    busy.value = false
  }
  /** @param question may ask `isLatest` whether another question followed; its error becomes `problem`, and there is no answer then */
  async function ask(question: (isLatest: () => boolean) => Promise<T>): Promise<void> {
    const own = ++turn
    busy.value = true
    problem.value = ''
    try {
      const value = await question(() => own === turn)
      if (own === turn) answer.value = value
    } catch (error) {
      if (own !== turn) return
      answer.value = undefined
      problem.value = (error as Error).message
    } finally {
      if (own === turn) busy.value = false
    }
  }
  onScopeDispose(cancel)
  return { answer, busy, problem, ask, cancel }
}
