import { addDays, monthEnd } from '../../core/time/day'
import { isDimension } from '../../core/spend/dimensions'
import type { Condition } from '../../core/spend/question'
import { useData } from '../stores/data'
import { useSpend } from '../stores/spend'
import { addressOf } from '../utils/long-address'
import type { Sentence } from '../utils/spend-sentence'
import { keptWithSteps, withoutValue, withValue } from '../../core/spend/sentence'

/** The things one can do with a value, a period or a part of the Sentence: each changes the address, so back undoes it. */
export function useSpendActions() {
  const router = useRouter()
  const spend = useSpend()

  function go(change: Partial<Sentence>) {
    if (!spend.sentence) return
    spend.menu = null
    void spend.attempt(async () => {
      await router.push({ path: '/spend', query: await addressOf({ ...spend.sentence!, ...change }) })
    })
  }

  const keep = ({ dimension, value }: { dimension: string; value: string | null }) =>
    go({
      keep: withValue(spend.sentence!.keep, dimension, value),
      leaveOut: withoutValue(spend.sentence!.leaveOut, dimension, value),
      steps: spend.sentence!.steps.filter(s => s.dimension !== dimension),
    })
  const leaveOut = ({ dimension, value }: { dimension: string; value: string | null }) =>
    go({
      leaveOut: withValue(spend.sentence!.leaveOut, dimension, value),
      keep: withoutValue(spend.sentence!.keep, dimension, value),
      steps: [],
    })
  const drop = (list: 'keep' | 'leaveOut', dimension: string, value: string | null) =>
    go({ [list]: withoutValue(spend.sentence![list], dimension, value) })
  const dropCondition = (condition: Condition) => go({ conditions: spend.sentence!.conditions.filter(c => c !== condition) })
  /** Keeps the value and splits what it holds by another dimension. */
  const splitInto = (target: { dimension: string; value: string | null }, by: string) =>
    go({ keep: withValue(spend.sentence!.keep, target.dimension, target.value), splitBy: [by], steps: [] })

  /** Narrows the whole Sentence to the path of the Steps. */
  const keepPath = () => go({ keep: keptWithSteps(spend.sentence!), steps: [] })

  /** Looks at the time of one start of the chart: a day by its hours where the data has them, a longer one by its days. */
  function lookInto(start: string) {
    const { grain } = spend.sentence!
    if (grain === 'hour') return
    if (grain === 'day') go({ period: { start, end: addDays(start, 1) }, ...(useData().facts?.hourly && { grain: 'hour' }) })
    else if (grain === 'week') go({ period: { start, end: addDays(start, 7) }, grain: 'day' })
    else
      go({
        period: { start, end: grain === 'month' ? monthEnd(start.slice(0, 7)) : monthEnd(addDays(start, 75).slice(0, 7)) },
        grain: grain === 'quarter' ? 'month' : 'day',
      })
  }

  /** The page of a value: a resource's own, or what all charges under the value come to. */
  function open({ dimension, value }: { dimension: string; value: string | null }) {
    if (value === null) return keep({ dimension, value })
    spend.menu = null
    if (dimension === 'ResourceId' || dimension === 'x_CreatedBy' || dimension === 'x_Protects')
      void router.push({ path: '/spend/resource', query: { id: value } })
    else void router.push({ path: '/spend/of', query: { dimension, value } })
  }
  const canOpen = isDimension

  return { go, keep, keepPath, leaveOut, drop, dropCondition, splitInto, lookInto, open, canOpen }
}
