import { firstOpenMonth } from '../../core/allocation/closing/closing-order'
import { monthEnd, monthStart } from '../../core/time/day'
import type { AllocationQuestion, StatementFormat, StatementsAsked } from '../../shared/contracts/allocation'
import type { allocation } from '../operations/allocation'
import type { BodyOf, QueryOf } from '../operations/operation'
import { notFound } from '../problems/problem'
import { listClosed } from '../stores/closings'
import { findLookup, listLookups, putLookup, saveLookup } from '../stores/lookups'
import { currentPlan, planOfVersion, planVersions, saveOrganisation, savePlan, type SavedPlan } from '../stores/organisation'
import { namesOf, personEntries } from '../stores/people'
import { mailStatements, statementMails } from '../use-cases/statement-mails'
import { allocatedLines } from '../use-cases/allocated-lines'
import { centresFor } from '../use-cases/centres'
import { changedSinceClosed, closeAsLookedAt, closingOutlook, planFor } from '../use-cases/closed-months'
import { movedInMonth, previewedMonth, settledMonth } from '../use-cases/settled-month'
import { statementsFile } from '../use-cases/statements-file'
import { statementsBeside } from '../use-cases/unit-costs'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof allocation> = BodyOf<(typeof allocation)[Name]>

/** So many values and keys that do not meet are listed. */
const MOST_LISTED = 200

/** Cost centres, rules, pools and lookups, and months settled by them. */
export class Allocation {
  constructor(private readonly work: EngineWork) {}

  /** The newest plan, or a version of it. */
  async plan({ version }: { version?: number | undefined } = {}): Promise<SavedPlan> {
    if (version === undefined) return planFor(this.#db, null)
    const saved = await planOfVersion(this.#db, version)
    if (!saved) throw notFound('version', `The cost centres and rules have no version ${version}.`)
    return saved
  }

  async versions() {
    return { versions: await planVersions(this.#db) }
  }

  /** The cost centres of the first tree that whoever asks may see, with who answers for each. */
  async centres() {
    const [centres, names] = await Promise.all([centresFor(this.#db, this.work.asker), namesOf(this.#db)])
    return { centres: centres.map(one => ({ ...one, owner: one.owner && (names.get(one.owner) ?? null) })) }
  }

  async savePlan(save: Body<'savePlan'>) {
    const version = await savePlan(this.#db, save, this.work.asker.id)
    await this.work.refreshReference()
    return { version }
  }

  /** A billing month put on cost centres: as it was closed, or by the plan that holds for it. */
  async settlement(question: AllocationQuestion) {
    return (await settledMonth(this.work, question)).reply
  }

  /** What a month would look like with something that is not saved. @param unwanted ends it when whoever asked has left, or asked anew. */
  preview(asked: Body<'preview'>, unwanted: AbortSignal) {
    return previewedMonth(this.work, asked, unwanted)
  }

  /** What something not saved puts elsewhere in a month. @param unwanted ends it when whoever asked has left, or asked anew. */
  moved(asked: Body<'moved'>, unwanted: AbortSignal) {
    return movedInMonth(this.work, asked, unwanted)
  }

  /** The statements of a month as a file. */
  statements(format: StatementFormat, asked: StatementsAsked) {
    return statementsFile(this.work, format, asked)
  }

  /** The charge lines of a month with whose each is, and what is borne of pools. */
  lines(asked: QueryOf<(typeof allocation)['lines']>) {
    return allocatedLines(this.work, asked)
  }

  /** What stands beside the statements of a month. */
  beside(asked: QueryOf<(typeof allocation)['beside']>) {
    return statementsBeside(this.work, asked)
  }

  /** The months that are closed, and the one in which adjustments arrive. */
  async closings() {
    const closed = await listClosed(this.#db)
    return { closed, firstOpen: firstOpenMonth(closed.map(one => one.month)) }
  }

  /** Whether a month can be closed, and what is to be known before. */
  outlook({ month }: { month: string }) {
    return closingOutlook(this.work, month)
  }

  /** The charge lines of a closed month that have changed since. */
  changes({ month }: { month: string }) {
    return changedSinceClosed(this.work, month)
  }

  /** Closes a month as it was looked at. */
  close(asked: Body<'close'>) {
    return closeAsLookedAt(this.work, asked)
  }

  /** Whom the statements of a closed month are for, and what became of their mails. */
  mails({ month }: { month: string }) {
    return statementMails(this.#db, month)
  }

  /** Mails their statements to owners who got none. @param again of whom nobody knows whether they did, who gets it again. */
  async sendMails({ month }: { month: string }, { again }: Body<'sendMails'>) {
    const owners = await mailStatements(this.work, month, again)
    this.work.jobs.wake()
    return owners
  }

  async lookups() {
    const lookups = await listLookups(this.#db)
    return {
      lookups: lookups.map(({ name, lookup: { by, fields, entries }, who, savedAt }) => ({
        ...{ name, by, fields, who, savedAt },
        entries: entries.length,
      })),
    }
  }

  async lookup(name: string) {
    const found = await findLookup(this.#db, name)
    if (!found) throw notFound('lookup', `No lookup is called «${name}».`)
    return found
  }

  /** A lookup in place of the one of that name: at once a dimension for each of its fields. */
  async saveLookup(name: string, { basedOn, ...lookup }: Body<'saveLookup'>) {
    await saveLookup(this.#db, name, lookup, basedOn, this.work.asker.id)
    await this.work.refreshReference()
    return { name, entries: lookup.entries.length }
  }

  /** Where the charges of a billing month and a lookup do not meet. */
  async unmatched(name: string, { month, measure }: QueryOf<(typeof allocation)['unmatched']>) {
    await this.lookup(name)
    const asked = { name, start: monthStart(month), end: monthEnd(month), measure, basis: 'billing' as const }
    const { result } = await this.work.seen.ask('unmatched', asked)
    const { unknown, without, unused } = result
    return {
      ...{ unknown: unknown.slice(0, MOST_LISTED), more: Math.max(0, unknown.length - MOST_LISTED), without },
      ...{ unused: unused.slice(0, MOST_LISTED), moreUnused: Math.max(0, unused.length - MOST_LISTED) },
    }
  }

  /** Takes a lookup away; its earlier states are kept. */
  async dropLookup(name: string) {
    await this.lookup(name)
    await putLookup(this.#db, name, null, this.work.asker.id)
    await this.work.refreshReference()
    return { name, entries: 0 }
  }

  /** People and cost centres as they are. */
  async organisation() {
    const [saved, people] = await Promise.all([currentPlan(this.#db), personEntries(this.#db)])
    return { people, plan: saved?.plan ?? null, version: saved?.version ?? 0 }
  }

  /** People and cost centres in place of those before. @throws Problem where there are some and the file was not held against them. */
  async takeOrganisation(file: Body<'takeOrganisation'>) {
    const version = await saveOrganisation(this.#db, file, this.work.asker.id)
    await this.work.people.changed()
    await this.work.refreshReference()
    return { people: file.people.length, centres: file.plan.centres.length, rules: file.plan.rules.length, version }
  }

  get #db() {
    return this.work.database.db
  }
}
