<script setup lang="ts">
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { sharedDocument } from '../../../shared/contracts/estimates'
import type { z } from 'zod'

/** An estimate as a link shows it: read only, for anyone who has the link. */
const route = useRoute()
const shown = shallowRef<z.infer<typeof sharedDocument> | null>(null)
const problem = ref<ReturnType<typeof problemOf> | null>(null)
onMounted(async () => {
  try {
    shown.value = await client.get(`shared/${encodeURIComponent(String(route.params.secret))}`, sharedDocument)
  } catch (error) {
    problem.value = problemOf(error)
  }
})
const document = computed(() => shown.value?.document)
const total = computed(() => document.value?.summary.at(-1)?.figures)
useHead({
  title: () => (document.value ? `${document.value.title} · Rain Barrel` : 'Rain Barrel'),
  meta: [
    { name: 'robots', content: 'noindex' },
    { name: 'referrer', content: 'no-referrer' },
  ],
})
const text = (amount: string) => (Number(amount) === 0 ? '–' : money(roundText(amount), document.value!.currency))
const signed = (amount: string) => signedMoney(amount, document.value!.currency)
const about = computed(
  () =>
    document.value &&
    [
      document.value.place,
      ...document.value.cards.map(c => [c.provider, `rate card of ${dayText(c.date)}`].filter(Boolean).join(' ')),
      ...document.value.rates.map(r => `${r.rate} ${r.to} for 1 ${r.from} on ${dayText(r.day)}`),
      document.value.month.startsWith('month') ? document.value.month : monthText(document.value.month),
      `prepared on ${dayText(document.value.preparedOn)}${document.value.preparedBy ? ` by ${document.value.preparedBy}` : ''}`,
    ].join(' · '),
)
const lacksText = (lacks: { rows: number; amounts: Record<string, string> | null }) =>
  `${count(lacks.rows)} ${lacks.rows === 1 ? 'row is' : 'rows are'} not counted${lacks.amounts ? `, ${money(roundText(lacks.amounts.effectiveMonthly!), document.value!.currency)} a month as it stands` : ''}`
const target = computed(() =>
  document.value?.target && total.value && !document.value.lacks
    ? subtractTexts(total.value.effectiveMonthly, document.value.target)
    : null,
)
</script>

<template>
  <article class="paper">
    <p class="mast"><BrandMark /> <span>Rain Barrel</span></p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-else-if="!document" class="note" role="status">Reading…</p>
    <template v-else>
      <h1>{{ document.title }}</h1>
      <p class="minor">{{ about }}</p>
      <p class="warn">An estimate, not a quote. This page is open until {{ dayText(shown!.expiresOn) }}.</p>
      <p v-if="document.scenario" class="note said">
        <b>Scenario: {{ document.scenario }}</b
        ><template v-if="document.conditions.length">, {{ document.conditions.join(' and ') }}</template
        >. Totals and lines are those of this scenario.
      </p>
      <p v-if="document.lacks" class="bad" role="note">
        {{ lacksText(document.lacks) }}: the totals lack {{ document.lacks.rows === 1 ? 'it' : 'them' }}.
      </p>
      <p v-if="document.note" class="note said">{{ document.note }}</p>
      <div v-if="total" class="figures">
        <span
          ><span class="big">{{ text(total.effectiveMonthly) }} {{ currencySign(document.currency) }}</span
          ><span class="label">effective monthly</span></span
        >
        <span v-for="name in ['upfront', 'firstYear', 'wholeTerm'] as const" :key="name"
          ><b>{{ text(total[name]) }}</b
          ><span class="label">{{
            name === 'wholeTerm' ? `${document.termYears} ${document.termYears === 1 ? 'year' : 'years'}` : figureWords[name]
          }}</span></span
        >
      </div>
      <p v-if="target" class="note">
        The target is {{ text(document.target!) }} a month:
        {{
          target.startsWith('-')
            ? `${money(sizeText(roundText(target)), document.currency)} left`
            : `${money(roundText(target), document.currency)} over`
        }}.
      </p>
      <div class="scroll" tabindex="0" role="group" aria-label="figures">
        <table class="ledger">
          <caption class="minor">
            What it is made of, in
            {{
              document.currency
            }}
          </caption>
          <thead>
            <tr>
              <th>component</th>
              <th>what</th>
              <th>where</th>
              <th v-if="document.parts.some(p => p.rows.some(r => r.way))">payment</th>
              <th v-for="name in figureNames" :key="name" class="n">{{ figureWords[name] }}</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="part in document.parts" :key="part.name">
              <tr v-if="document.parts.length > 1 || part.name" class="part">
                <td :colspan="document.parts.some(p => p.rows.some(r => r.way)) ? 4 : 3">{{ part.name || 'other rows' }}</td>
                <td v-for="name in figureNames" :key="name" class="n">{{ text(part.figures[name]) }}</td>
              </tr>
              <tr v-for="row in part.rows" :key="row.id" :class="{ muted: row.muted }">
                <td>{{ row.label }}<span v-if="row.muted" class="minor">, not counted</span></td>
                <td>
                  {{ row.details
                  }}<template v-if="row.replaced"
                    ><br /><span class="warn">{{ row.replaced }}</span></template
                  ><br v-if="row.note" /><span v-if="row.note" class="minor">{{ row.note }}</span>
                </td>
                <td>{{ row.where }}</td>
                <td v-if="document.parts.some(p => p.rows.some(r => r.way))">{{ row.way }}</td>
                <td v-for="name in figureNames" :key="name" class="n">{{ row.figures ? text(row.figures[name]) : row.problem }}</td>
              </tr>
            </template>
            <tr v-for="(line, i) in document.summary" :key="line.label" :class="{ total: i === document.summary.length - 1 }">
              <td :colspan="document.parts.some(p => p.rows.some(r => r.way)) ? 4 : 3">
                {{ line.label
                }}<span v-if="document.lacks && i === document.summary.length - 1" class="bad">, {{ lacksText(document.lacks) }}</span>
              </td>
              <td v-for="name in figureNames" :key="name" class="n">{{ text(line.figures[name]) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <section v-if="document.columns.length">
        <h2 class="heading">Scenarios</h2>
        <div class="scroll" tabindex="0" role="group" aria-label="figures">
          <table class="ledger">
            <thead>
              <tr>
                <th>scenario</th>
                <th v-for="name in figureNames" :key="name" class="n">{{ figureWords[name] }}</th>
                <th class="n">to the first, a month</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="s in document.columns" :key="s.name">
                <td>
                  {{ s.name }}<span v-if="s.lacks" class="bad">, {{ lacksText(s.lacks) }}</span>
                </td>
                <td v-for="name in figureNames" :key="name" class="n">{{ text(s.figures[name]) }}</td>
                <td class="n" :class="Number(s.difference?.effectiveMonthly ?? 0) > 0 ? 'bad' : 'good'">
                  {{ s.difference ? signed(s.difference.effectiveMonthly) : '' }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section v-if="document.ranges">
        <h2 class="heading">How sure</h2>
        <p class="note">
          Of {{ count(document.ranges.draws) }} draws of the uncertain inputs one in ten lies under
          {{ money(document.ranges.p10.toFixed(2), document.currency) }}, half under
          {{ money(document.ranges.p50.toFixed(2), document.currency) }}, nine in ten under
          {{ money(document.ranges.p90.toFixed(2), document.currency) }} {{ document.currency }} a month.<template
            v-if="document.ranges.drivers[0]"
          >
            {{ document.ranges.drivers[0].label }} matters most.</template
          >
        </p>
      </section>
      <section v-if="document.assumptions.length">
        <h2 class="heading">Assumed, not yet confirmed</h2>
        <ul>
          <li v-for="a in document.assumptions" :key="a.label + a.value">{{ a.label }}: {{ a.value }}</li>
        </ul>
      </section>
      <section v-if="document.dismissed.length">
        <h2 class="heading">Dismissed on purpose</h2>
        <ul>
          <li v-for="d in document.dismissed" :key="d.title">{{ d.title }}: {{ d.reason }}</li>
        </ul>
      </section>
      <section v-if="document.workings.length">
        <h2 class="heading">Workings</h2>
        <details v-for="w in document.workings" :key="w.label">
          <summary>{{ w.label }}</summary>
          <WorkingsTree :working="w.working" :currency="document.currency" />
        </details>
      </section>
    </template>
  </article>
</template>

<style scoped>
td:nth-child(4) {
  white-space: nowrap;
}
.paper {
  max-width: 1080px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.mast {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--ink-2);
  font-family: var(--serif);
  margin-bottom: 18px;
}
h1 {
  font: 600 26px/1.2 var(--serif);
  letter-spacing: -0.01em;
}
.said {
  margin-top: 6px;
  white-space: pre-line;
}
section {
  margin-top: 20px;
}
caption {
  text-align: left;
  padding-bottom: 4px;
}
.part td {
  font-weight: 620;
  background: var(--paper-sunk);
}
.muted td {
  color: var(--ink-3);
  text-decoration: line-through;
}
ul {
  list-style: disc;
  padding-left: 18px;
}
summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
