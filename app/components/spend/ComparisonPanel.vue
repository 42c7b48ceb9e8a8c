<script setup lang="ts">
import { effectNames, type Effect } from '../../../core/spend/compare'
import { causesOf, restOf } from '../../../core/spend/page/waterfall'
import type { SpendComparison } from '../../../shared/contracts/spend'

/**
 * One period against another: who moved, by how much, why (more used, dearer, new or gone), as a waterfall and a list that add up to the
 * change.
 */
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
type Contribution = SpendComparison['contributions'][number]
/** Lines of the list; the others stand in one. */
const MOST_LINES = 200
const splitBy = computed(() => (spend.shown!.splitBy.length ? spend.shown!.splitBy : ['ServiceName']))
const total = computed(() => spend.comparison?.totals.find(t => t.currency === spend.currency) ?? null)
const own = computed(() => (spend.comparison?.contributions ?? []).filter(c => c.currency === spend.currency))
const shown = computed(() => own.value.slice(0, MOST_LINES))
const rest = computed(() => (own.value.length > MOST_LINES ? restOf(total.value!, shown.value) : null))
const unequal = computed(() => spend.comparison && spend.comparison.daysNow !== spend.comparison.daysBefore)
const perDay = ref(false)
const nameOf = (c: Contribution, dimension: string) =>
  spend.labelOf(dimension, c.values[dimension] ?? null, companionOf[dimension] ? c.values[companionOf[dimension]] : null)
const label = (c: Contribution) => splitBy.value.map(dimension => nameOf(c, dimension)).join(' · ')
const target = (c: Contribution) => {
  const dimension = splitBy.value[0]!
  return { dimension, value: c.values[dimension] ?? null, label: nameOf(c, dimension) }
}
const signed = (text: string) => signedMoney(text, spend.currency)

/** The causes in words. */
const causeWords = computed((): Record<Effect, string> =>
  spend.shown!.reportCurrency ? { ...effectWords, price: 'other prices and exchange rates, for what was used before' } : effectWords,
)
const causes = computed(() => (total.value ? causesOf(total.value) : []))
const effectHeads: Record<Effect, string> = {
  quantity: 'by quantity',
  price: 'by price',
  both: 'both',
  newAndGone: 'came or went',
  corrections: 'corrections',
  tax: 'tax',
  credits: 'credits',
  purchases: 'purchases',
  other: 'other',
}
/** The effects that anything has. */
const effects = computed(() => effectNames.filter(name => own.value.some(c => Number(c.effects[name]) !== 0)))
</script>

<template>
  <p v-if="isCost(spend.shown!.measure) && spend.compared && spend.comparedReach === 'none'" class="note">
    No charges are loaded for {{ periodText(spend.compared) }}: all would look new. Choose another period to compare with, in the Sentence.
  </p>
  <section v-else-if="spend.comparison && total" class="comparison" aria-label="Comparison">
    <p class="said">
      {{ signed(total.difference) }} {{ spend.currency }} from {{ spend.compared ? periodText(spend.compared) : 'before' }} to
      {{ periodText(spend.period)
      }}<template v-if="unequal">, over {{ spend.comparison.daysBefore }} and {{ spend.comparison.daysNow }} days</template>.
      <template v-for="(cause, i) in causes" :key="cause.name"
        ><template v-if="i === 0"> It is made up of </template><template v-else>; </template><b>{{ signed(cause.amount) }}</b>
        {{ causeWords[cause.name] }}</template
      ><template v-if="causes.length">.</template>
    </p>
    <p v-if="unequal" class="minor">
      <label><input v-model="perDay" type="checkbox" /> differences a day: the periods are of different length</label>
    </p>
    <WaterfallBars :total="total" :contributions="own" :label="label" :target="target" />
    <div class="scroll" tabindex="0" role="group" aria-label="figures">
      <table class="ledger">
        <thead>
          <tr>
            <th>{{ splitBy.map(dimensionLabel).join(' · ') }}</th>
            <th class="n">before</th>
            <th class="n">now</th>
            <th class="n">{{ perDay ? 'difference a day' : 'difference' }}</th>
            <th v-for="name in effects" :key="name" class="n">{{ effectHeads[name] }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in shown" :key="JSON.stringify(c.values)" class="acts">
            <td>
              <button class="value" @click="openMenu(target(c), $event.currentTarget as Element)" @keydown="onKey($event, target(c))">
                {{ label(c) }}</button>{{ ' ' }} <span v-if="c.kind !== 'both'" class="kindmark">{{ c.kind }}</span><template
                v-if="c.mostly"
                ><br /><span class="minor">mostly {{ c.mostly.description }}, {{ signed(c.mostly.difference) }}</span></template
              >
            </td>
            <td class="n">{{ c.kind === 'new' ? '–' : money(c.before, c.currency) }}</td>
            <td class="n">{{ c.kind === 'gone' ? '–' : money(c.now, c.currency) }}</td>
            <td class="n strong">{{ signed(perDay ? c.perDay : c.difference) }}</td>
            <td v-for="name in effects" :key="name" class="n">{{ signed(c.effects[name]) }}</td>
          </tr>
          <tr v-if="rest">
            <td>the other {{ count(own.length - shown.length) }}</td>
            <td class="n">{{ money(rest.before, spend.currency) }}</td>
            <td class="n">{{ money(rest.now, spend.currency) }}</td>
            <td class="n strong">{{ signed(perDay ? rest.perDay : rest.difference) }}</td>
            <td v-for="name in effects" :key="name" class="n">{{ signed(rest.effects[name]) }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr class="total" data-testid="comparison-total">
            <td>Total of {{ count(own.length) }}</td>
            <td class="n">{{ money(total.before, spend.currency) }}</td>
            <td class="n">{{ money(total.now, spend.currency) }}</td>
            <td class="n">{{ signed(perDay ? total.perDay : total.difference) }}</td>
            <td v-for="name in effects" :key="name" class="n">{{ signed(total.effects[name]) }}</td>
          </tr>
        </tfoot>
      </table>
    </div>
  </section>
  <p v-else-if="!isCost(spend.shown!.measure)" class="note">
    Two periods are compared in one of the four costs: choose one in the Sentence.
  </p>
</template>

<style scoped>
.comparison {
  margin-top: 12px;
}
.said {
  max-width: 80ch;
  margin-bottom: 8px;
}
.strong {
  font-weight: 620;
}
.value {
  min-height: 24px;
  text-align: left;
  border-radius: 3px;
}
.value:hover {
  color: var(--act);
}
.kindmark {
  font-size: 11px;
  color: var(--ink-2);
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 4px;
  margin-left: 4px;
}
</style>
