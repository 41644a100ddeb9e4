/** Work that may fail at the server, and the message of the last that did. */
export function useAttempt() {
  const problem = ref('')
  async function attempt(work: () => Promise<void>) {
    problem.value = ''
    try {
      await work()
    } catch (error) {
      problem.value = failureMessage(error)
    }
  }
  return { problem, attempt }
}
