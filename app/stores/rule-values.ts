import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { mainTotal } from '../../core/money/main-total'
import { choicesOf, type SpendRow } from '../../core/spend/page/rows'
import type { ProblemDetails } from '../../shared/contracts/common'
import { valueLabel } from '../../shared/words/dimensions'
import { askAnswers } from '../utils/ask-answers'
import { problemOf } from '../utils/client'
import { useData } from './data'

/** The values that charges have of the dimensions that rules look at, with what they cost over all that is loaded. */
export const useRuleValues = defineStore('rule-values', () => {
  const data = useData()
  const byDimension = shallowRef<Readonly<Record<string, SpendRow[]>>>({})
  const currency = ref('EUR')
  const problem = ref<ProblemDetails | null>(null)
  const asked = new Set<string>()
  watch(
    () => data.facts?.revision,
    () => {
      byDimension.value = {}
      asked.clear()
    },
  )

  /** Asks for the values of dimensions that are not known yet. */
  async function learn(dimensions: readonly string[]) {
    const facts = data.facts
    const wanted = [...new Set(dimensions)].filter(dimension => !asked.has(dimension))
    if (!facts?.firstDay || !wanted.length) return
    wanted.forEach(dimension => asked.add(dimension))
    const whole = { measure: 'billedCost' as const, grain: null, start: facts.firstDay, end: '2200-01-01' }
    try {
      const answers = await askAnswers(wanted.map(dimension => ({ ...whole, splitBy: [dimension] })))
      currency.value = mainTotal(answers[0]!.totals, facts.reportCurrency)?.currency ?? 'EUR'
      const found = wanted.map((dimension, i) => {
        return [dimension, choicesOf(answers[i]!, dimension, currency.value, valueLabel)] as const
      })
      byDimension.value = { ...byDimension.value, ...Object.fromEntries(found) }
      problem.value = null
    } catch (error) {
      wanted.forEach(dimension => asked.delete(dimension))
      problem.value = problemOf(error)
    }
  }

  return { byDimension, currency, problem, learn }
})
