import { defineStore } from 'pinia'
import { monthToDate, type Period } from '../../core/time/period'
import { dimensionList, spendAnswer, type DimensionList, type SpendAnswer } from '../../shared/contracts/spend'

/** What is loaded: its days, dimensions and currencies, and the month to date for the strip. Read again after every load. */
export const useData = defineStore('data', () => {
  const facts = ref<DimensionList | null>(null)
  const monthNow = ref<SpendAnswer | null>(null)
  const monthBefore = ref<SpendAnswer | null>(null)
  const failed = ref(false)

  async function load() {
    try {
      const list = await client.get('spend/dimensions', dimensionList)
      if (list.lastDay) {
        const { current, before } = monthToDate(list.lastDay)
        const ask = (period: Period) =>
          client.send('POST', 'spend/answer', { measure: 'billedCost', splitBy: [], grain: null, ...period }, spendAnswer)
        ;[monthNow.value, monthBefore.value] = await Promise.all([ask(current), ask(before)])
      }
      facts.value = list
      failed.value = false
    } catch {
      failed.value = true
    }
  }

  return { facts, monthNow, monthBefore, failed, load }
})
