/**
 * Does a work again and again until it is stopped, never twice at once: what is still under way when its time comes round is left to
 * end. A work that fails is logged and tried again at its next time.
 * @returns how to stop it.
 */
export function repeatedly(everyMs: number, work: () => Promise<void>): () => void {
  let working = false
  async function once() {
    if (working) return
    working = true
    try {
      await work()
    } catch (error) {
      console.error(error)
    } finally {
      working = false
    }
  }
  const timer = setInterval(() => void once(), everyMs)
  timer.unref()
  return () => clearInterval(timer)
}
