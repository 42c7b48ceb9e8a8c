import { isoInstant } from '../../core/time/instant'
import type { ChargeStore } from '../charges/charge-store'
import type { Undoing } from '../charges/period-steps'
import type { Database } from '../db/database'
import { notFound, Problem } from '../problems/problem'
import { meetingsOf } from './meetings'
import type { Turn } from './turn'

/** Loads that are taken back, and forth again. */
export class LoadSteps {
  constructor(
    private readonly database: Database,
    private readonly charges: ChargeStore,
    private readonly turn: Turn,
  ) {}

  /**
   * Takes a load back: what was there before counts again.
   * @param empty whether billing periods may be left without charges.
   * @throws Problem when a later load has replaced some of it, money would count twice, or a period would be left without charges.
   */
  async undo(id: string, who: string, empty: boolean): Promise<void> {
    await this.#step(id, 'undo', async (loadId, undoing) => {
      const without = empty ? [] : emptied(undoing)
      if (without.length)
        throw new Problem(
          'conflict',
          'would-empty',
          'Nothing would be left',
          `Undoing it leaves ${without.map(period => `${period.source}, ${period.billingPeriodStart.slice(0, 7)}`).join(' and ')} without any charges. Confirm that to go on.`,
        )
      return this.charges.undo(loadId, who, undoing.seen)
    })
  }

  /** Loads again what was taken back. @throws Problem when something else has come to count since. */
  async redo(id: string, who: string): Promise<void> {
    await this.#step(id, 'redo', (loadId, undoing) => this.charges.redo(loadId, who, undoing.seen))
  }

  async #step(id: string, which: 'undo' | 'redo', act: (loadId: number, undoing: Undoing) => Promise<boolean>): Promise<void> {
    await this.turn.take(async () => {
      for (let isDone = false; !isDone;) {
        const loadId = /^\d{1,9}$/.test(id) ? Number(id) : 0
        const undoing = await (which === 'undo' ? this.charges.undoing(loadId) : this.charges.redoing(loadId))
        if (!undoing)
          throw new Problem(
            'conflict',
            'not-undoable',
            `The load cannot be ${which === 'undo' ? 'undone' : 'loaded again'}`,
            'Only the load that a billing period has had last can be undone or loaded again; start with the later one.',
          )
        const [meeting] = await meetingsOf(this.database, this.charges, undoing.comes, undoing.goes)
        if (meeting)
          throw new Problem(
            'conflict',
            'would-meet',
            'Money would count twice',
            `${meeting.source} counts for ${meeting.billingAccountIds.join(', ')} from ${meeting.billingPeriodStart.slice(0, 10)}, and what would come back has the same account. Undo that load first.`,
          )
        isDone = await act(loadId, undoing)
      }
      await this.turn.refresh()
    })
  }

  /** Puts all of a source away, as a load that can be undone. @returns its id. @throws Problem when nothing of it counts. */
  async takeOut(source: string, who: string): Promise<string> {
    let id: number | null = null
    await this.turn.take(async () => {
      id = await this.charges.takeOut(source, who)
      if (id === null) throw notFound('source', `No charges of «${source}» count.`)
      await this.turn.refresh()
    })
    return String(id)
  }
}

/** Billing periods that would be left without charges: nothing comes back for their time. */
export const emptied = ({ goes, comes }: Undoing): { source: string; billingPeriodStart: string }[] =>
  goes
    .filter(
      ({ start, end }) => !comes.some(other => Date.parse(other.start) < Date.parse(end) && Date.parse(other.end) > Date.parse(start)),
    )
    .map(({ source, start }) => ({ source, billingPeriodStart: isoInstant(start) }))
