import { connectors, connectorThatCan, withConnector } from '../connectors/connect'
import { lookForSavings, lookJob } from '../jobs/kinds/look-for-savings'
import { act } from '../jobs/kinds/act'
import { actJob, approveAction } from '../use-cases/act'
import { mustBeTheirs, previewAction, savingsState } from '../use-cases/savings'
import type { EngineWork } from './engine-work'

/** What can be saved, of what is for whoever asks. */
export class Savings {
  constructor(private readonly work: EngineWork) {}

  state() {
    return savingsState(this.work)
  }

  /** Looks again through every connection that has what it takes. */
  async look() {
    const { db } = this.work.database
    await connectorThatCan(db, ['inventory', 'measurements']) // says so where there is none
    for (const { name, can } of await connectors(db))
      if (can.inventory && can.measurements)
        await withConnector(() => this.work.jobs.runNow(lookForSavings, lookJob(name), this.work.asker.id))
    return this.state()
  }

  /** What approving would do; does nothing. */
  async preview(id: string) {
    await mustBeTheirs(this.work, id)
    return previewAction(this.work, id)
  }

  /** Approves and carries out one opportunity. Sending it again acts no second time. */
  async approve(id: string) {
    await mustBeTheirs(this.work, id)
    await approveAction(this.work.database.db, id, this.work.asker.id)
    await this.work.jobs.runOnce(act, actJob(id), { opportunity: id }, this.work.asker.id)
    return this.state()
  }
}
