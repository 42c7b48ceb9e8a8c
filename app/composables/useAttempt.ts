/** Runs what may fail on a page: the problem it ended with is there to be shown, none when it went well. */
export function useAttempt() {
  const problem = ref<ReturnType<typeof problemOf> | null>(null)
  async function attempt(work: () => Promise<void>): Promise<void> {
    try {
      problem.value = null
      await work()
    }
    catch (error) {
      problem.value = problemOf(error)
    }
  }
  return { problem, attempt }
}
