import { onScopeDispose, shallowRef } from 'vue'
import type { Trace } from '../../core/allocation/trace'
import { ALLOCATION_RULE } from '../../core/spend/dimension'
import { addTexts } from '../../core/money/amount-text'
import { priceParts, spendAnswer, type PriceParts, type SpendAnswer } from '../../shared/contracts/spend'
import type { ProblemDetails } from '../../shared/contracts/common'
import { useSkuWords } from '../stores/sku-words'
import { client, problemOf } from '../utils/client'

/** The charges behind an amount in its currency: by the rule that puts them there, and as quantity × unit price. */
export type TracedCharges = {
  /** Nothing where rules are not for who asks. */
  rules: SpendAnswer['rows']
  parts: PriceParts['parts']
  /** What lies beyond the listed parts; null where nothing does. */
  left: { count: number; amount: string } | null
  total: string
}

/** What is behind an amount of a statement, as charges are known now; null until it is known. */
export function useTracedCharges({ period, currency, measure, keep, basis, splitBy }: Trace) {
  const found = shallowRef<TracedCharges | null>(null)
  const problem = shallowRef<ProblemDetails | null>(null)
  const skus = useSkuWords()
  const asked = new AbortController()
  onScopeDispose(() => asked.abort())
  async function ask() {
    const question = { measure, keep, basis, grain: null, start: period.start, end: period.end }
    const bySplit = splitBy[0]?.startsWith(ALLOCATION_RULE) ? splitBy : []
    try {
      const [byRule, byPrice] = await Promise.all([
        client.send('POST', 'spend/answer', { ...question, splitBy: bySplit }, spendAnswer, asked.signal),
        client.send('POST', 'spend/price-parts', { ...question, splitBy: [] }, priceParts, asked.signal),
      ])
      const inCurrency = <T extends { currency: string }>(list: readonly T[]) => list.filter(one => one.currency === currency)
      const parts = inCurrency(byPrice.parts)
      await skus.learn(parts.map(({ skuId }) => skuId))
      const left = byPrice.rest && inCurrency(byPrice.rest.amounts)[0]
      found.value = {
        ...{ parts, left: left ? { count: byPrice.rest!.count, amount: left.amount } : null },
        rules: bySplit.length ? inCurrency(byRule.rows) : [],
        total: addTexts([...parts.map(({ amount }) => amount), left?.amount ?? '0']),
      }
    } catch (error) {
      if (!asked.signal.aborted) problem.value = problemOf(error)
    }
  }
  void ask()
  return { found, problem }
}
