import { firstOpenMonth } from '../../core/allocation/closing/closing-order'
import { treeWithin } from '../../core/allocation/tree'
import { treeOf } from '../../core/allocation/plan'
import { tableFormats } from '../../shared/table-formats'
import type { AllocationQuestion, SettledBeside, StatementFormat, StatementsAsked } from '../../shared/contracts/allocation'
import type { RatesAsked } from '../charges/cube/cube-slices'
import type { allocation } from '../operations/allocation'
import type { BodyOf } from '../operations/operation'
import { notFound, wholeCompany } from '../problems/problem'
import { findLookup, listLookups, saveLookup } from '../stores/lookups'
import { findClosed, listClosed, type ClosedMonth } from '../stores/closings'
import { currentPlan, planOfVersion, planVersions, saveOrganisation, savePlan, type SavedPlan } from '../stores/organisation'
import { namesOf, personEntries } from '../stores/people'
import { centresFor } from '../use-cases/centres'
import {
  adjustmentsArriving,
  basisFor,
  changedSinceClosed,
  closeAsLookedAt,
  closingOutlook,
  keptMonth,
  planFor,
} from '../use-cases/closed-months'
import { settleMonth } from '../use-cases/settle-month'
import { JsonBytes } from '../json-bytes'
import type { EngineWork } from './engine-work'

/** The rates that a month was closed with; null where it is open. */
const ratesOf = (closed: ClosedMonth | null): RatesAsked => closed && { reportCurrency: closed.reportCurrency, rates: closed.rates }

const statementMimes: Record<StatementFormat, string> = {
  pdf: 'application/pdf',
  csv: tableFormats.csv.mime,
  xlsx: tableFormats.xlsx.mime,
  journal: tableFormats.csv.mime,
}

type Body<Name extends keyof typeof allocation> = BodyOf<(typeof allocation)[Name]>

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
    const { month, measure } = question
    const tree = question.tree ?? null
    if (this.work.asker.bound && tree !== null) throw wholeCompany('Further trees of cost centres.')
    const closed = await findClosed(this.#db, month)
    const kept = question.as !== 'today' && closed?.measure === measure && closed.trees.find(one => one.tree === tree)
    if (kept)
      return keptMonth(
        this.work,
        (await listClosed(this.#db)).find(one => one.month === month)!,
        kept,
      )
    const { plan, version } = await planFor(this.#db, closed)
    return settleMonth(this.work.seen, plan, { month, measure, tree, rates: ratesOf(closed) }, await this.#beside(month, tree, version))
  }

  /** What a month would look like under a plan that is not saved. @param unwanted ends it when whoever asked has left, or asked anew. */
  async preview({ plan, month, measure, tree = undefined }: Body<'preview'>, unwanted: AbortSignal) {
    const asked = { month, measure, tree: tree ?? null, rates: ratesOf(await findClosed(this.#db, month)) }
    return settleMonth(this.work.seen, plan, asked, await this.#beside(month, asked.tree, 0), unwanted)
  }

  async #beside(month: string, tree: string | null, version: number): Promise<SettledBeside> {
    const basis = await basisFor(this.work)
    const first = firstOpenMonth((await listClosed(this.#db)).map(one => one.month))
    return { version, basis, closed: null, adjustments: first === month ? await adjustmentsArriving(this.work, tree) : [] }
  }

  /** The statements of a month as a file. */
  async statements(format: StatementFormat, { centre = undefined, ...question }: StatementsAsked) {
    const reply = await this.settlement(question)
    const [closed, { bound }] = [await findClosed(this.#db, question.month), this.work.asker]
    const isKept = !(reply instanceof JsonBytes)
    const { plan } = isKept ? await this.plan({ version: reply.version }) : await planFor(this.#db, closed)
    const tree = treeOf(plan, question.tree ?? null)!
    const centres = bound ? treeWithin(tree.centres, bound) : tree.centres
    if (centre !== undefined && !centres.some(({ id }) => id === centre)) throw notFound('cost centre', `There is no «${centre}».`)
    const bytes = await this.work.exporter.writeStatements({
      ...{ format, month: question.month, measure: question.measure, centres, centre: centre ?? null },
      settled: isKept ? reply : Buffer.from(reply.bytes),
      people: Object.fromEntries(await namesOf(this.#db)),
    })
    return { bytes, mime: statementMimes[format], fileName: `${['statements', question.month, centre].filter(Boolean).join('-')}` }
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
  async saveLookup(name: string, lookup: Body<'saveLookup'>) {
    await saveLookup(this.#db, name, lookup, this.work.asker.id)
    await this.work.refreshReference()
    return { name, entries: lookup.entries.length }
  }

  /** Takes a lookup away; its earlier states are kept. */
  async dropLookup(name: string) {
    await this.lookup(name)
    await saveLookup(this.#db, name, null, this.work.asker.id)
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
