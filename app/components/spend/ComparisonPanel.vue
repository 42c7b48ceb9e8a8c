<script setup lang="ts">
import { effectNames, type Effect } from '../../../core/spend/compare'
import type { SpendComparison } from '../../../shared/contracts/spend'

/**
 * One period against another: who moved, by how much, why (more used, dearer, new or gone), as a waterfall and a list that add up to the
 * change.
 */
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
type Contribution = SpendComparison['contributions'][number]
const splitBy = computed(() => (spend.shown!.splitBy.length ? spend.shown!.splitBy : ['ServiceName']))
const total = computed(() => spend.comparison?.totals.find(t => t.currency === spend.currency) ?? null)
const own = computed(() => (spend.comparison?.contributions ?? []).filter(c => c.currency === spend.currency))
const unequal = computed(() => spend.comparison && spend.comparison.daysNow !== spend.comparison.daysBefore)
const perDay = ref(false)
const label = (c: Contribution) =>
  splitBy.value.map(d => spend.labelOf(d, c.values[d] ?? null, companionOf[d] ? c.values[companionOf[d]] : null)).join(' · ')
const target = (c: Contribution) => ({
  dimension: splitBy.value[0]!,
  value: c.values[splitBy.value[0]!] ?? null,
  label: spend.labelOf(
    splitBy.value[0]!,
    c.values[splitBy.value[0]!] ?? null,
    companionOf[splitBy.value[0]!] ? c.values[companionOf[splitBy.value[0]!]!] : null,
  ),
})
const signed = (text: string) => (Number(text) === 0 ? '–' : `${Number(text) > 0 ? '+' : ''}${money(text, spend.currency)}`)

/** The causes in words, largest first. */
const effectWords = computed(() => ({
  quantity: 'more or less used, at the old prices',
  price: `other prices${spend.shown!.reportCurrency ? ' and exchange rates' : ''}, for what was used before`,
  both: 'both together',
  newAndGone: 'SKUs that came or went',
  corrections: 'corrections of earlier charges',
  tax: 'tax',
  credits: 'credits',
  purchases: 'purchases',
  other: 'other charges without a quantity',
}))
const causes = computed(() =>
  total.value
    ? (Object.keys(effectWords.value) as (keyof typeof effectWords.value)[])
        .map(name => ({ name, said: effectWords.value[name], amount: total.value!.effects[name] }))
        .filter(c => Number(c.amount) !== 0)
        .sort((a, b) => Math.abs(Number(b.amount)) - Math.abs(Number(a.amount)))
    : [],
)

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
const STEPS = 8
/** The bars of the waterfall: before, the largest steps, the rest, now. Widths are shares of the largest level, for drawing only. */
const bars = computed(() => {
  if (!total.value) return []
  const largest = own.value.filter(c => Number(c.difference) !== 0).slice(0, STEPS)
  const rest = subtractTexts(total.value.difference, addTexts(largest.map(c => c.difference)))
  const others = own.value.filter(c => Number(c.difference) !== 0).length - largest.length
  const steps = [
    ...largest.map(c => ({ label: label(c), amount: c.difference, contribution: c as Contribution | null })),
    ...(others > 0 ? [{ label: `the other ${count(others)}`, amount: rest, contribution: null }] : []),
  ]
  let level = Number(total.value.before)
  const list = [
    {
      kind: 'level' as const,
      label: spend.compared ? periodText(spend.compared) : 'before',
      amount: total.value.before,
      from: 0,
      to: level,
      contribution: null as Contribution | null,
    },
    ...steps.map(step => {
      const from = level
      level += Number(step.amount)
      return { kind: 'step' as const, ...step, from, to: level }
    }),
    {
      kind: 'level' as const,
      label: periodText(spend.period),
      amount: total.value.now,
      from: 0,
      to: Number(total.value.now),
      contribution: null as Contribution | null,
    },
  ]
  // the axis starts near the smallest level, so that the steps can be seen; the break is said
  const levels = list.flatMap(bar => (bar.kind === 'step' ? [bar.from, bar.to] : [bar.to]))
  const low = Math.min(...levels)
  const high = Math.max(...levels)
  const start = low > 0 && high - low < low * 0.5 ? low - (high - low) * 0.25 : Math.min(0, low)
  const span = high - start || 1
  const place = (value: number) => Math.max(0, ((value - start) / span) * 100)
  return list.map(bar => ({
    ...bar,
    left: place(Math.min(bar.from, bar.to)),
    width: Math.max(0.4, Math.abs(place(bar.to) - place(bar.from))),
    cut: start > 0,
  }))
})
</script>

<template>
  <p v-if="isCost(spend.shown!.measure) && spend.compared && spend.comparedReach === 'none'" class="note">
    Nothing is loaded of {{ periodText(spend.compared) }}: all would look new. Choose another period to compare with, in the Sentence.
  </p>
  <section v-else-if="spend.comparison && total" class="comparison" aria-label="Comparison">
    <p class="said">
      {{ signed(total.difference) }} {{ spend.currency }} from {{ spend.compared ? periodText(spend.compared) : 'before' }} to
      {{ periodText(spend.period)
      }}<template v-if="unequal">, over {{ spend.comparison.daysBefore }} and {{ spend.comparison.daysNow }} days</template>.
      <template v-for="(cause, i) in causes" :key="cause.name"
        ><template v-if="i === 0"> It is made of </template><template v-else>; </template><b>{{ signed(cause.amount) }}</b>
        {{ cause.said }}</template
      ><template v-if="causes.length">.</template>
    </p>
    <p v-if="unequal" class="minor">
      <label><input v-model="perDay" type="checkbox" /> differences a day: the periods are of different length</label>
    </p>
    <ol class="waterfall" aria-label="From before to now">
      <li v-for="(bar, i) in bars" :key="i" class="bar">
        <component
          :is="bar.contribution ? 'button' : 'span'"
          class="label"
          :class="{ level: bar.kind === 'level' }"
          :title="bar.label"
          @click="bar.contribution && openMenu(target(bar.contribution), $event.currentTarget as Element)"
          @keydown="bar.contribution && onKey($event, target(bar.contribution))"
          >{{ bar.label }}</component
        >
        <span class="track"
          ><span
            class="fill"
            :class="[bar.kind, { less: bar.kind === 'step' && Number(bar.amount) < 0, cut: bar.cut && bar.kind === 'level' }]"
            :style="{ left: `${bar.left}%`, width: `${bar.width}%` }"
        /></span>
        <span class="amount">{{ bar.kind === 'level' ? money(bar.amount, spend.currency) : signed(bar.amount) }}</span>
      </li>
    </ol>
    <p v-if="bars[0]?.cut" class="minor">
      The first and last bar are cut off on the left: the scale begins above zero so that the steps can be seen.
    </p>
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
          <tr v-for="c in own.slice(0, 200)" :key="JSON.stringify(c.values)" class="acts">
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
        </tbody>
        <tfoot>
          <tr class="total" data-testid="comparison-total">
            <td>Total of {{ count(own.length) }}</td>
            <td class="n">{{ money(total.before, spend.currency) }}</td>
            <td class="n">{{ money(total.now, spend.currency) }}</td>
            <td class="n">{{ signed(total.difference) }}</td>
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
.waterfall {
  display: grid;
  gap: 3px;
  margin-bottom: 8px;
}
.bar {
  display: grid;
  grid-template-columns: minmax(120px, 230px) minmax(0, 1fr) 110px;
  gap: 10px;
  align-items: center;
}
.label {
  min-height: 24px;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border-radius: 3px;
  display: block;
  line-height: 24px;
}
button.label:hover {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.label.level {
  font-weight: 620;
}
.track {
  position: relative;
  height: 16px;
}
.fill {
  position: absolute;
  top: 0;
  bottom: 0;
  border-radius: 2px;
}
.fill.level {
  background: var(--act);
}
.fill.level.cut {
  border-left: 4px double var(--paper);
}
.fill.step {
  background: var(--warn);
}
.fill.step.less {
  background: var(--good);
}
.amount {
  text-align: right;
  white-space: nowrap;
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
