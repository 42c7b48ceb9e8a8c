<script setup lang="ts">
import { notCounted } from '../../../core/estimate/scenarios/compare'
import { columnTotal } from '../../../core/estimate/sheet/column-sums'
import type { FigureColumn } from '../../../core/estimate/sheet/columns'
import { evaluate } from '../../../core/working/working'
import { sheetKey } from '../../composables/useSheet'

/** What the sheet comes to: the sum of its rows, what comes on top of it step by step, and the total with what it lacks. */
defineProps<{ span: number }>()
const store = useEstimate()
const { figureColumns, comparing, prices } = inject(sheetKey)!
const steps = computed(() => store.priced!.steps)
const total = (column: FigureColumn) => columnTotal(column, prices.value)
const totalText = computed(() => {
  const discounts = store.estimate!.discounts.filter(({ percent }) => percent !== '0')
  const less = discounts.map(({ percent, provider }) => `${percent} % at ${provider}`).join(', ')
  const on = comparing.value ? steps.value.map(({ label }) => label).join(', ') : ''
  return ['Total', less && `less ${less}`, on && `with ${on}`].filter(Boolean).join(', ')
})
const shown = (text: string) => (Number(text) === 0 ? '–' : money(roundText(text), store.currency))
/** What each column's total lacks: said in the column, whatever figure is looked at. */
const lacks = computed(() => store.columns.map(column => notCounted(column, store.base!)))
const lacksText = (column: FigureColumn) => {
  const lack = lacks.value[column.at]
  if (!lack) return ''
  const amount = lack.amounts?.[column.figure]
  const inFirst = amount && Number(amount) !== 0 ? `, ${money(roundText(amount), store.currency)} in A` : ''
  return `${count(lack.rows)} ${lack.rows === 1 ? 'row' : 'rows'} not counted${inFirst}`
}
</script>

<template>
  <template v-if="steps.length && !comparing">
    <tr class="step">
      <td :colspan="span">Own cost, sum of the rows</td>
      <td v-for="column in figureColumns" :key="column.key" class="n">
        {{ shown(evaluate(store.priced!.cost[column.figure]).toFixed()) }}
      </td>
    </tr>
    <tr v-for="(step, index) in steps" :key="index" class="step">
      <td :colspan="span">{{ step.label }}</td>
      <td v-for="column in figureColumns" :key="column.key" class="n">
        <ExplainedFigure
          :text="evaluate(step.figures[column.figure]).toFixed()"
          :asked="{ of: 'step', index, figure: column.figure }"
          :scenario="null"
        />
      </td>
    </tr>
  </template>
  <tr class="total" data-testid="estimate-total">
    <td :colspan="span">
      {{ totalText }}
    </td>
    <td
      v-for="column in figureColumns"
      :key="column.key"
      class="n"
      :class="{ first: column.first, [toneOf(total(column).amount)]: column.difference }"
    >
      <template v-if="column.difference"
        >{{ signedMoney(total(column).amount, store.currency) }}
        <div class="share">
          {{ total(column).share === null ? '–' : percentText(Number(total(column).share)) }}
        </div>
        <div v-if="lacks[column.at]" class="share" title="taken over the rows that both can price">like for like</div></template
      >
      <template v-else
        ><ExplainedFigure
          :text="total(column).amount"
          :asked="{ of: 'total', figure: column.figure }"
          :scenario="store.columns[column.at]!.scenario"
        />
        <div v-if="lacksText(column)" class="lack">{{ lacksText(column) }}</div></template
      >
    </td>
  </tr>
</template>

<style scoped>
.step td {
  color: var(--ink-2);
}
.share {
  font-weight: 400;
  font-size: 11.5px;
}
.lack {
  font-weight: 500;
  font-size: 11px;
  line-height: 1.2;
  color: var(--bad);
  white-space: normal;
  min-width: 84px;
}
</style>
