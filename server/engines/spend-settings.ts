import { isLookupBase } from '../../core/spend/dimensions'
import type { ReferenceBody } from '../../shared/contracts/spend-settings'
import type { BodyOf } from '../operations/operation'
import type { spend } from '../operations/spend'
import { Problem } from '../problems/problem'
import { checkDimensions } from '../use-cases/check-scope'
import { changeReference, readReference } from '../stores/spend-reference'
import type { EngineWork } from './engine-work'

type Body<Name extends keyof typeof spend> = BodyOf<(typeof spend)[Name]>

/** What people say beside the charges: spellings, the account tree, words for SKUs, the currency that is reported in. */
export class SpendSettings {
  constructor(private readonly work: EngineWork) {}

  state() {
    return readReference(this.work.database.db)
  }

  /** Where accounts stand in the account tree, and the tags that accounts and containers hand down; in place of what was there. */
  async saveAccountTree(tree: Body<'saveAccountTree'>) {
    await this.#change(known => ({ body: { ...known, ...tree }, result: undefined }))
    return { accounts: Object.keys(tree.accounts).length, containers: Object.keys(tree.containerTags).length }
  }

  async saveReportCurrency(change: Body<'saveReportCurrency'>) {
    await this.#change(known => ({ body: { ...known, ...change }, result: undefined }))
    return change
  }

  /** Own words for a SKU code, before those of the rate card; null takes them back. */
  async changeSku({ sku, entry }: Body<'changeSku'>) {
    await this.#change(known => {
      const { [sku]: _, ...others } = known.skus
      return { body: { ...known, skus: entry ? { ...others, [sku]: entry } : others }, result: undefined }
    })
    return { sku }
  }

  /** Lets spellings of a dimension's value count as one, over all that is loaded; `as: null` takes that back. */
  async changeAlias({ dimension, spellings, as }: Body<'changeAlias'>) {
    checkDimensions([dimension])
    if (!isLookupBase(dimension))
      throw new Problem(
        'invalid',
        'no-alias',
        'Its values are not spellings',
        `«${dimension}» is made of rules or a lookup: change those, or the spellings of what they look at.`,
      )
    const aliases = await this.#change(known => {
      const changed = new Map(Object.entries(known.aliases[dimension] ?? {}))
      for (const spelling of spellings) {
        if (as === null || spelling === as) changed.delete(spelling)
        else changed.set(spelling, as)
      }
      // what counted as one of these spellings counts as the new one: no chains
      if (as !== null) {
        for (const [spelling, target] of changed) if (spellings.includes(target)) changed.set(spelling, as)
        changed.delete(as)
      }
      const own = Object.fromEntries(changed)
      const { [dimension]: _, ...others } = known.aliases
      return { body: { ...known, aliases: changed.size ? { ...others, [dimension]: own } : others }, result: own }
    })
    return { aliases }
  }

  /** Requires tags of usage, in place of all that were required. */
  async requireTags({ tags }: Body<'requireTags'>) {
    await this.#change(known => ({ body: { ...known, requiredTags: tags }, result: undefined }))
    return { tags }
  }

  async #change<T>(change: (known: ReferenceBody) => { body: ReferenceBody; result: T }): Promise<T> {
    const result = await changeReference(this.work.database.db, this.work.asker.id, change)
    await this.work.refreshReference()
    return result
  }
}
