import { addDays } from '../../core/time/day'
import { today } from '../../shared/today'
import { LONGEST_LINK_DAYS } from '../../shared/contracts/estimates'
import { documentOf, exportEstimate } from '../exports/estimate/export-estimate'
import type { estimates } from '../operations/estimates'
import type { BodyOf } from '../operations/operation'
import { notFound, Problem } from '../problems/problem'
import {
  fileEstimate,
  listEstimates,
  listVersions,
  mustFindEstimate,
  nameVersion,
  noEstimate,
  saveEstimate,
  saversOf,
} from '../stores/estimates'
import { estimateOfLink, listLinks, makeLink, openLink, revokeLink } from '../stores/links'
import { listPatterns, listUplifts, removePattern, removeUplift, savePattern, saveUplift } from '../stores/reusable'
import { madeFor } from '../use-cases/made-by'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof estimates> = BodyOf<(typeof estimates)[Name]>

/**
 * Estimates with their versions, files and links, as far as they are for whoever asks: one made of what runs shows what its maker sees.
 * Patterns and uplifts, of which they are made, are for everybody.
 */
export class Estimates {
  constructor(private readonly work: EngineWork) {}

  async list() {
    const [estimates, savers, isFor] = await Promise.all([listEstimates(this.#db), saversOf(this.#db), madeFor(this.work)])
    return { estimates: estimates.filter(({ id }) => isFor(savers.get(id) ?? [])) }
  }

  /** An estimate as it was saved last, or in a version. */
  async find(id: string, version: number | undefined) {
    await this.#mustBeFor(id)
    return mustFindEstimate(this.#db, id, version)
  }

  async save(id: string, { basedOn, estimate, name }: Body<'save'>) {
    await this.#mustBeFor(id)
    return { id, version: await saveEstimate(this.#db, id, basedOn, estimate, this.#who, name) }
  }

  /** Files an estimate in a folder, puts it away or brings it back. */
  async file(id: string, filing: Body<'file'>) {
    await this.#mustBeFor(id)
    await fileEstimate(this.#db, id, filing, this.#who)
    return { id }
  }

  /** Every state that was saved, the newest first. */
  async versions(id: string) {
    await this.#mustBeFor(id)
    return { versions: await listVersions(this.#db, id) }
  }

  /** Gives a saved state a name to come back to. */
  async nameVersion(id: string, version: number, { name }: Body<'nameVersion'>) {
    await this.#mustBeFor(id)
    await nameVersion(this.#db, id, version, name)
    return { id }
  }

  /** A version as a file to hand over: CSV, XLSX with live formulas, or PDF. */
  async export(id: string, asked: Body<'export'>) {
    await this.#mustBeFor(id)
    return exportEstimate(this.work, id, asked, this.work.asker.name)
  }

  async links(id: string) {
    await this.#mustBeFor(id)
    return { links: await listLinks(this.#db, id) }
  }

  /** Makes a link that shows one version to anyone who has it. Its address is told now and never again. */
  async makeLink(estimateId: string, { version, audience, scenario, expiresOn }: Body<'makeLink'>) {
    await this.#mustBeFor(estimateId)
    const now = today()
    const last = addDays(now, LONGEST_LINK_DAYS)
    if (expiresOn > last)
      throw new Problem(
        'invalid',
        'invalid',
        'The link would open for too long',
        `Choose a day up to ${last}: links open for two years at most.`,
        [{ field: 'expiresOn', reason: `the last day is ${last}` }],
      )
    if (expiresOn < now)
      throw new Problem('invalid', 'invalid', 'The link would never open', 'Choose a day that is still to come.', [
        { field: 'expiresOn', reason: 'the day has passed' },
      ])
    const body = await documentOf(this.work, estimateId, { version, audience, scenario }, this.work.asker.name)
    const { id, secret } = await makeLink(this.#db, { estimateId, version, audience, body, expiresOn, who: this.#who })
    return { id, path: `/shared/${secret}` }
  }

  async revokeLink(id: string) {
    const estimate = await estimateOfLink(this.#db, id)
    if (estimate !== null) await this.#mustBeFor(estimate)
    await revokeLink(this.#db, id)
    return { id }
  }

  /** What a link shows: for anyone who has it. */
  openLink(secret: string) {
    return openLink(this.#db, secret, today())
  }

  async patterns() {
    return { patterns: await listPatterns(this.#db) }
  }

  /** Keeps a pattern; one of the same id is replaced. */
  async savePattern(set: Body<'savePattern'>) {
    await savePattern(this.#db, set, this.#who)
    return { id: set.id }
  }

  async removePattern(id: string) {
    if (!(await removePattern(this.#db, id))) throw notFound('pattern', `No pattern has the id «${id}».`)
    return { id }
  }

  async uplifts() {
    return { uplifts: await listUplifts(this.#db) }
  }

  /** Keeps a set of uplifts; one of the same id is replaced. */
  async saveUplift(set: Body<'saveUplift'>) {
    await saveUplift(this.#db, set, this.#who)
    await this.work.refreshReference()
    return { id: set.id }
  }

  async removeUplift(id: string) {
    if (!(await removeUplift(this.#db, id))) throw notFound('set of uplifts', `No set has the id «${id}».`)
    await this.work.refreshReference()
    return { id }
  }

  /** @throws Problem where an estimate is there and not for whoever asks: then there is none. */
  async #mustBeFor(id: string): Promise<void> {
    if (!this.work.asker.bound) return
    const savers = (await saversOf(this.#db, id)).get(id)
    if (savers && !(await madeFor(this.work))(savers)) throw noEstimate(id)
  }

  get #db() {
    return this.work.database.db
  }

  get #who() {
    return this.work.asker.id
  }
}
