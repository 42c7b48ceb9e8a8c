import type { CubeClient } from '../charges/cube-client'

/** The order in which it changes which charges count: one thing after the other. */
export class Turn {
  #last: Promise<unknown> = Promise.resolve()

  constructor(private readonly cube: CubeClient) {}

  /**
   * Does a work after what is queued, so that what it has checked still holds when it acts. Its failure is the caller's alone: the queue
   * goes on.
   */
  async take(work: () => Promise<void>): Promise<void> {
    const mine = this.#last.then(work)
    this.#last = mine.catch(() => {})
    await mine
  }

  /** What counts has changed, whatever happens to the copy in memory. */
  async refresh(): Promise<void> {
    await this.cube.refresh().catch(error => {
      console.error('the charges in memory could not be brought up to date; restart Rain Barrel', error)
    })
  }
}
