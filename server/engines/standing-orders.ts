import { orderChoice } from '../jobs/kinds/order-choice'
import type { OrderDefinition } from '../../core/standing-order/definition'
import type { OrderException } from '../../core/standing-order/verdict'
import type { OrderRunAsked } from '../../shared/contracts/standing-orders'
import { dueNow } from '../stores/jobs'
import { askFor, orderJob, removeException } from '../stores/standing-orders'
import { chosenTag, exceptFrom, mustBeOrder, mustBeTried } from '../use-cases/standing-orders/checked-order'
import { dropOrder, editOrder, makeOrder, switchOrder } from '../jobs/standing-orders'
import { ordersView, runWhole } from '../use-cases/standing-orders/orders-view'
import type { EngineWork } from './engine-work'

/** Rules that find resources and act on them. */
export class StandingOrderEngine {
  constructor(private readonly work: EngineWork) {}

  state() {
    return ordersView(this.work)
  }

  async make(definition: OrderDefinition) {
    await makeOrder(this.work, definition)
    return this.state()
  }

  async edit(id: string, definition: OrderDefinition) {
    await editOrder(this.work, id, definition)
    return this.state()
  }

  async drop(id: string) {
    await dropOrder(this.work.database.db, id)
    return this.state()
  }

  async switch(id: string, isOn: boolean) {
    await switchOrder(this.work.database.db, id, isOn)
    return this.state()
  }

  /** Lets an order run once, dry or not: it begins in the background. */
  async run(id: string, { isDry, beyondBrake }: OrderRunAsked) {
    const { db } = this.work.database
    const order = await mustBeOrder(db, id)
    if (!isDry) mustBeTried(order)
    await askFor(db, id, { isDry, beyondBrake, who: this.work.asker.id })
    await dueNow(db, orderJob(id))
    await this.work.jobs.tell()
    return this.state()
  }

  async stop(id: string) {
    await mustBeOrder(this.work.database.db, id)
    await this.work.jobs.stop(orderJob(id))
    return this.state()
  }

  runWhole(id: number) {
    return runWhole(this.work, id)
  }

  async except(id: string, exception: OrderException) {
    await exceptFrom(this.work, id, exception)
    return this.state()
  }

  async takeException(id: string, resourceId: string) {
    await mustBeOrder(this.work.database.db, id)
    await removeException(this.work.database.db, id, resourceId)
    return this.state()
  }

  /** Sets the tag that a person has chosen, once. */
  async choose(id: string, resourceId: string, person: string) {
    const tag = await chosenTag(this.work, id, resourceId, person)
    await this.work.jobs.runOnce(orderChoice, `order-choice ${JSON.stringify([id, resourceId, person])}`, tag, this.work.asker.id)
    return this.state()
  }
}
