import { ref } from 'vue'
import { problemOf } from '../utils/client'
/** Runs what may fail on a page: the problem it ended with is there to be shown, none when it went well. */
export function useAttempt() {
  const problem = ref<ReturnType<typeof problemOf> | null>(null)
  const busy = ref(false)
  /** @returns whether it went well. */
  async function attempt(work: () => Promise<void>): Promise<boolean> {
    busy.value = true
    try {
      problem.value = null
      await work()
      return true
    } catch (error) {
      problem.value = problemOf(error)
      return false
    } finally {
      busy.value = false
    }
  }
  return { problem, attempt, busy }
}
