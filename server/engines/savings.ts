import { randomUUID } from 'node:crypto'
import { connectors, connectorThatCan, withConnector } from '../connectors/connect'
import { lookForSavings, lookJob } from '../jobs/kinds/look-for-savings'
import { act } from '../jobs/kinds/act'
import { actBatch } from '../jobs/kinds/act-batch'
import { undo } from '../jobs/kinds/undo'
import { actJob } from '../use-cases/act'
import { undoJob } from '../use-cases/undo'
import type { ActsAsked, SavingsDecision, ThresholdsSet } from '../../shared/contracts/savings'
import type { AnswerToList, ListsToMake, SavingsFileAsked } from '../../shared/contracts/savings-lists'
import type { z } from 'zod'
import type { otherwiseAsked, OtherwiseChoice, OwnRuleInput } from '../../shared/contracts/savings-own'
import { notFound } from '../problems/problem'
import { removeRule } from '../stores/own-finds'
import { saveThresholds, setSecondPersonAbove } from '../stores/decisions'
import { jobsOf, putJob } from '../stores/jobs'
import { findOpportunity } from '../stores/savings'
import { revokeList } from '../stores/savings-lists'
import { approveActs, previewActs } from '../use-cases/acts'
import { billAndSavings } from '../use-cases/bill-and-savings'
import { chooseOtherwise, otherwise } from '../use-cases/otherwise'
import { keepRule, ownRules, previewRule } from '../use-cases/own-rules'
import { decideSavings, previewAction, savingsState } from '../use-cases/savings'
import { savingsFile } from '../use-cases/savings-file'
import { actedOnFor } from '../use-cases/savings-found'
import { allSavingsLists, answerSavingsList, linkToList, makeSavingsLists, mustBeList, openSavingsList } from '../use-cases/savings-lists'
import { mustBeThresholds, previewThresholds } from '../use-cases/savings-thresholds'
import type { EngineWork } from './engine-work'

/** What the names of jobs that act on several begin with. */
const ACTS = 'acts'

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

  /** Keeps what somebody decides about some of them. */
  async decide(asked: SavingsDecision) {
    await decideSavings(this.work, asked)
    return this.state()
  }

  /** Sets the thresholds of detectors in place of all that were set. */
  async setThresholds(asked: ThresholdsSet) {
    mustBeThresholds(asked)
    await saveThresholds(this.work.database.db, asked.thresholds, this.work.asker.id)
    return this.state()
  }

  /** What would be found with other thresholds; sets nothing. */
  previewThresholds(asked: ThresholdsSet) {
    return previewThresholds(this.work, asked)
  }

  /** What things that are charged for would cost otherwise. */
  otherwise(asked: z.infer<typeof otherwiseAsked>) {
    return otherwise(this.work, asked)
  }

  /** Chooses a way for some resources, or takes it back. */
  chooseOtherwise(asked: OtherwiseChoice) {
    return chooseOtherwise(this.work, asked)
  }

  rules() {
    return ownRules(this.work)
  }

  previewRule(asked: OwnRuleInput) {
    return previewRule(this.work, asked)
  }

  async addRule(asked: OwnRuleInput) {
    await keepRule(this.work, asked)
    return this.rules()
  }

  async removeRule(id: string) {
    if (!(await removeRule(this.work.database.db, id))) throw notFound('rule', 'It may have been deleted already.')
    return this.rules()
  }

  /** This month's bill against the month before, with what was saved of it. */
  bill() {
    return billAndSavings(this.work)
  }

  /** Lists that were handed over. */
  lists() {
    return allSavingsLists(this.work)
  }

  /** Makes a list for each owner, and mails it where that is wanted. */
  async makeLists(asked: ListsToMake) {
    const made = await makeSavingsLists(this.work, asked)
    this.work.jobs.wake()
    return made
  }

  linkToList(id: string) {
    return linkToList(this.work, id)
  }

  async revokeList(id: string) {
    await mustBeList(this.work, id)
    await revokeList(this.work.database.db, id)
    return this.lists()
  }

  file(asked: SavingsFileAsked) {
    return savingsFile(this.work, asked)
  }

  openList(secret: string) {
    return openSavingsList(this.work, secret)
  }

  answerList(secret: string, asked: AnswerToList) {
    return answerSavingsList(this.work, secret, asked)
  }

  /** What approving would do; does nothing. */
  async preview(id: string) {
    return previewAction(this.work, await actedOnFor(this.work, id))
  }

  /** What acting on several would do; does nothing. */
  previewActs({ ids }: ActsAsked) {
    return previewActs(this.work, ids)
  }

  /** Approves several, and begins to carry them out. */
  async act({ ids }: ActsAsked) {
    const approved = await approveActs(this.work, ids, this.work.asker.id)
    if (!approved.length) return this.state()
    // a batch is a job of its own: what others have approved goes on beside it
    const name = `${ACTS} ${randomUUID()}`
    const { db } = this.work.database
    await putJob(db, {
      kind: actBatch.kind,
      name,
      argument: { ids: approved, who: this.work.asker.id },
      every: null,
      due: new Date().toISOString(),
      tell: this.work.asker.id,
    })
    this.work.jobs.wake()
    return this.state()
  }

  async setApprovalLimit(above: string | null) {
    await setSecondPersonAbove(this.work.database.db, above, this.work.asker.id)
    return this.state()
  }

  /** Stops what is carried out one after the other. */
  async stopActs() {
    for (const { name } of (await jobsOf(this.work.database.db, actBatch.kind)).values()) await this.work.jobs.stop(name)
    return this.state()
  }

  /** Undoes what was done about an opportunity, once. */
  async undo(id: string) {
    await this.work.jobs.runOnce(undo, undoJob(id), { opportunity: id }, this.work.asker.id)
    return this.state()
  }

  /** Approves and carries out one opportunity. Sending it again acts no second time. */
  async approve(id: string) {
    await actedOnFor(this.work, id)
    const isDone = (await findOpportunity(this.work.database.db, id))?.action?.state === 'done'
    if (!isDone && !(await approveActs(this.work, [id], this.work.asker.id)).length) return this.state()
    await this.work.jobs.runOnce(act, actJob(id), { opportunity: id }, this.work.asker.id)
    return this.state()
  }
}
