import { treeOf } from '../../core/allocation/plan'
import type { UnitCostsAsked } from '../../shared/contracts/measures'
import type { measures } from '../operations/measures'
import type { BodyOf } from '../operations/operation'
import { dropMeasure, listMeasures, saveMeasures } from '../stores/measures'
import { currentPlan } from '../stores/organisation'
import { measureSeen, measuredCentres } from '../use-cases/measures-seen'
import { unitCostsAsked } from '../use-cases/unit-costs'
import type { EngineWork } from './engine-work'

/** Business measures, and what one of them costs. */
export class Measures {
  constructor(private readonly work: EngineWork) {}

  async list() {
    return { measures: await listMeasures(this.work.database.db, await measuredCentres(this.work)) }
  }

  /** @throws Problem where there is none that is for who asks. */
  measure(name: string) {
    return measureSeen(this.work, name)
  }

  /** What was counted, in place of what was told for the same cost centres and dates: of all these measures, or of none. */
  async save({ measures: counted }: BodyOf<(typeof measures)['save']>) {
    const { database, asker, refreshReference } = this.work
    const saved = await saveMeasures(database.db, counted, asker.id)
    await refreshReference()
    const plan = (await currentPlan(database.db))?.plan
    const unknown = ({ tree, values }: (typeof counted)[number]) => {
      const known = new Set((plan && treeOf(plan, tree))?.centres.map(({ id }) => id))
      return [...new Set(values.map(({ centre }) => centre))].filter(centre => !known.has(centre))
    }
    return { saved: saved.map((one, at) => ({ ...one, unknown: unknown(counted[at]!) })) }
  }

  async drop(name: string) {
    await this.measure(name)
    await dropMeasure(this.work.database.db, name)
    await this.work.refreshReference()
    return { name }
  }

  unitCosts(asked: UnitCostsAsked) {
    return unitCostsAsked(this.work, asked)
  }
}
