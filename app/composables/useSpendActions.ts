import { addDays } from '../../core/time/day'

/** The things one can do with a value, a period or a part of the Sentence: each changes the address, so back undoes it. */
export function useSpendActions() {
  const router = useRouter()
  const spend = useSpend()
  const data = useData()

  function go(change: Partial<SpendView>) {
    if (!spend.view || !data.facts?.lastDay) return
    spend.menu = null
    void router.push({ path: '/spend', query: writeView({ ...spend.view, ...change }, data.facts.lastDay) })
  }

  const keep = ({ dimension, value }: { dimension: string, value: string | null }) => go({
    keep: withValue(spend.view!.keep, dimension, value), leaveOut: withoutValue(spend.view!.leaveOut, dimension, value), steps: spend.view!.steps.filter(s => s.dimension !== dimension),
  })
  const leaveOut = ({ dimension, value }: { dimension: string, value: string | null }) => go({
    leaveOut: withValue(spend.view!.leaveOut, dimension, value), keep: withoutValue(spend.view!.keep, dimension, value), steps: [],
  })
  const drop = (list: 'keep' | 'leaveOut', dimension: string, value: string | null) => go({ [list]: withoutValue(spend.view![list], dimension, value) })
  /** Keeps the value and splits what it holds by another dimension. */
  const splitInto = (target: { dimension: string, value: string | null }, by: string) => go({ keep: withValue(spend.view!.keep, target.dimension, target.value), splitBy: [by], steps: [] })
  const onlyDay = (start: string) => go({ period: { start, end: addDays(start, 1) } })

  return { go, keep, leaveOut, drop, splitInto, onlyDay }
}
