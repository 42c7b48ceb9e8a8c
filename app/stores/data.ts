import { defineStore } from 'pinia'
import { dataDaysOf, reachingCompared, reachingPeriod, type Reaching } from '../../core/spend/sentence-period'
import { addMonths, monthOf } from '../../core/time/day'
import { dimensionList, spendAnswer, type DimensionList, type SpendAnswer } from '../../shared/contracts/spend'
import { computed, ref } from 'vue'
import { client } from '../utils/client'

/** What is loaded: its days, dimensions and currencies, and the month to date for the strip. Read again after every load. */
export const useData = defineStore('data', () => {
  const facts = ref<DimensionList | null>(null)
  const monthNow = ref<SpendAnswer | null>(null)
  const monthBefore = ref<SpendAnswer | null>(null)
  const failed = ref(false)

  /** First and last day with charges, and the last of each source; null before anything is loaded. */
  const days = computed(() => facts.value && dataDaysOf(facts.value))
  /** Months with charges, the newest first. */
  const months = computed(() => {
    const { firstDay, lastDay } = facts.value ?? {}
    const list: string[] = []
    if (firstDay && lastDay) for (let month = monthOf(lastDay); month >= monthOf(firstDay); month = addMonths(month, -1)) list.push(month)
    return list
  })
  /** The day after the last of which a part is delivered, and by whom. */
  const partial = computed(() => {
    const parts = facts.value?.sources.filter(({ partialDay }) => partialDay !== null && partialDay > facts.value!.lastDay!) ?? []
    const day = parts.map(({ partialDay }) => partialDay!).sort()[0]
    return day ? { day, sources: parts.filter(({ partialDay }) => partialDay === day) } : null
  })

  async function load() {
    try {
      const list = await client.get('spend/dimensions', dimensionList)
      const known = dataDaysOf(list)
      if (known) {
        const month = { period: 'this-month', against: 'before' } as const
        const ask = (period: Reaching) =>
          client.send('POST', 'spend/answer', { measure: 'billedCost', splitBy: [], grain: null, ...period }, spendAnswer)
        ;[monthNow.value, monthBefore.value] = await Promise.all([ask(reachingPeriod(month, known)), ask(reachingCompared(month, known))])
      }
      facts.value = list
      failed.value = false
    } catch {
      failed.value = true
    }
  }

  return { facts, days, months, partial, monthNow, monthBefore, failed, load }
})
