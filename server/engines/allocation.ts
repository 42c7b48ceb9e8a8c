import type { AllocationQuestion } from '../../shared/contracts/allocation'
import type { allocation } from '../operations/allocation'
import type { BodyOf } from '../operations/operation'
import { notFound, wholeCompany } from '../problems/problem'
import { findLookup, listLookups, saveLookup } from '../stores/lookups'
import { currentPlan, saveOrganisation, savePlan, type SavedPlan } from '../stores/organisation'
import { namesOf, personEntries } from '../stores/people'
import { centresFor } from '../use-cases/centres'
import { settleMonth } from '../use-cases/settle-month'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof allocation> = BodyOf<(typeof allocation)[Name]>

/** Cost centres, rules, pools and lookups, and months settled by them. */
export class Allocation {
  constructor(private readonly work: EngineWork) {}

  async plan(): Promise<SavedPlan> {
    const saved = await currentPlan(this.#db)
    if (!saved) throw notFound('plan', 'No cost centres are loaded yet. Drop a file with cost centres under Sources.')
    return saved
  }

  /** The cost centres of the first tree that whoever asks may see, with who answers for each. */
  async centres() {
    const [centres, names] = await Promise.all([centresFor(this.#db, this.work.asker), namesOf(this.#db)])
    return { centres: centres.map(one => ({ ...one, owner: one.owner && (names.get(one.owner) ?? null) })) }
  }

  async savePlan({ basedOn, plan }: Body<'savePlan'>) {
    const version = await savePlan(this.#db, plan, basedOn, this.work.asker.id)
    await this.work.refreshReference()
    return { version }
  }

  /** A billing month put on cost centres by the saved plan. */
  async settlement(question: AllocationQuestion) {
    if (this.work.asker.bound && question.tree !== undefined) throw wholeCompany('Further trees of cost centres.')
    return settleMonth(this.work.seen, await this.plan(), question)
  }

  /** What a month would look like under a plan that is not saved. @param unwanted ends it when whoever asked has left, or asked anew. */
  preview({ plan, ...question }: Body<'preview'>, unwanted: AbortSignal) {
    return settleMonth(this.work.seen, { plan, version: 0 }, question, unwanted)
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
