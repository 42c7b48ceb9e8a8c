<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { charts } from '../../../core/spend/sentence'
import { daysBetween } from '../../../core/time/day'

const spend = useSpend()
const data = useData()
const sentences = useSentences()
const route = useRoute()
const router = useRouter()
const actions = useSpendActions()
useHead({ title: 'Spend · Rain Barrel' })

watch(
  () => [route.query, data.facts?.revision] as const,
  async () => {
    if (route.path !== '/spend' || !data.days) return
    const { query } = route
    await spend.attempt(async () => {
      const { sentence, ignored } = await sentenceOf(query)
      if (route.query !== query) return // left for another meanwhile
      spend.ignored = ignored
      await spend.load(sentence, data.days!)
      if (route.path !== '/spend' || route.query !== query) return
      sentences.note({
        query: query.long ? { long: String(query.long) } : writeSentence(sentence),
        title: sentenceTitle(sentence, spend.period),
      })
    })
  },
  { immediate: true, deep: true },
)

const days = computed(() => (spend.shown ? daysBetween(spend.period.start, spend.period.end) : 0))
const difference = computed(() =>
  spend.totalBefore === null || !spend.additive || spend.comparedReach !== 'whole' ? null : subtractTexts(spend.total, spend.totalBefore),
)
const signed = (amount: string) =>
  `${spend.isMoney ? whole(sizeText(amount)) : quantity(sizeText(amount))} ${unitSign(spend.currency, spend.shown!.measure)} ${amount.startsWith('-') ? 'less' : 'more'} than`
const perDay = computed(() => {
  const each = spend.perDay
  return spend.isMoney ? whole(each) : quantity(roundText(each, 4))
})
/** So many sources that lag are named. */
const MOST_NAMED = 2
const laggingText = computed(() => {
  const named = spend.lagging
    .slice(0, MOST_NAMED)
    .map(({ source, days, lastDay }) => `${days === 1 ? 'a day' : `${days} days`} of ${source} (to ${dayShortText(lastDay)})`)
  const more = spend.lagging.length - named.length
  return named.join(', ') + (more > 0 ? ` and days of ${more} more` : '')
})
const mostOptions = [3, 5, 7, 10, 15, 20].map(n => ({ value: String(n), label: `largest ${n}` }))

/** Why nothing is there, as far as the data says. */
const emptyReason = computed(() => {
  const facts = data.facts!
  if (spend.period.end <= facts.firstDay! || spend.period.start > facts.lastDay!)
    return `Charges are loaded from ${dayText(facts.firstDay!)} to ${dayText(facts.lastDay!)}, outside the period.`
  if (!spend.isMoney) return 'Nothing under these conditions has a quantity.'
  return `Charges are loaded from ${dayText(facts.firstDay!)} to ${dayText(facts.lastDay!)}; the conditions leave none of them.`
})

useListedKeys([
  { key: 'k', what: 'keep the value that has the focus' },
  { key: 'l', what: 'leave it out' },
  { key: 's', what: 'split it by another dimension' },
  { key: 'o', what: 'open its page' },
  { key: 'w', what: 'its Workings' },
  { key: 'z', what: 'look into the time that the chart points at' },
  { key: 'Home', what: 'to the first of the chart or of a column of the Steps; End to the last' },
])

// Esc steps back: first what is open, then the last change of the address
onKeyStroke('Escape', event => {
  if (event.defaultPrevented || route.path !== '/spend') return
  if (spend.workings) spend.workings = null
  else if (!spend.menu && Object.keys(route.query).length && !document.querySelector('[data-reka-popper-content-wrapper]')) router.back()
})
</script>

<template>
  <div class="page" :aria-busy="spend.loading">
    <NothingLoaded v-if="data.facts && !data.facts.lastDay" missing="charges" />
    <p v-else-if="data.failed" class="note">
      The charges could not be reached. <button class="link" @click="data.load()">Try again</button>
    </p>
    <p v-else-if="!spend.ready && !spend.problem" class="note" role="status">Reading the charges…</p>
    <template v-if="spend.sentence && data.facts?.lastDay">
      <SpendTabs />
      <SpendSentence />
      <ProblemNote v-if="spend.problem" :problem="spend.problem" :retry="() => spend.load(spend.sentence!, spend.days!)" />
      <template v-if="spend.ready">
        <div class="figures" :class="{ busy: spend.loading }">
          <span
            ><span class="big" data-testid="total"
              >{{ measured(spend.total, spend.currency, spend.shown!.measure) }} {{ unitSign(spend.currency, spend.shown!.measure) }}</span
            ><span class="label">{{ days }} {{ days === 1 ? 'day' : 'days' }}</span
            ><span v-if="spend.lagging.length" class="minor lag" data-testid="lagging">, lacks {{ laggingText }}</span></span
          >
          <span v-for="other in spend.totals.filter(t => t.currency !== spend.currency).slice(0, 6)" :key="other.currency"
            ><button class="link other" @click="actions.go({ currency: other.currency })">
              {{ measured(other.amount, other.currency, spend.shown!.measure) }} {{ other.currency }}
            </button></span
          >
          <span v-if="spend.totals.length > 7" class="minor">and {{ spend.totals.length - 7 }} more units</span>
          <span v-if="spend.shown!.reportCurrency && spend.original.length" class="minor"
            >billed as {{ spend.original.map(o => `${money(o.amount, o.currency)} ${o.currency}`).join(' + ') }}</span
          >
          <span v-if="spend.additive"
            ><b>{{ perDay }} {{ unitSign(spend.currency, spend.shown!.measure) }}</b
            ><span class="label">a day</span></span
          >
          <span v-if="difference !== null && spend.compared"
            ><ChangeMark :now="spend.total" :before="spend.totalBefore" />{{ ' ' }}
            <span class="minor">{{ signed(difference) }} {{ periodText(spend.compared) }}</span></span
          >
          <span v-else-if="spend.compared && spend.additive && spend.comparedReach === 'part'" class="minor"
            >not compared: of {{ periodText(spend.compared) }} charges are loaded
            {{
              spend.compared.start < spend.days!.firstDay
                ? `from ${dayText(spend.days!.firstDay)} only`
                : `to ${dayText(spend.days!.lastDay)} only`
            }}</span
          >
          <span v-else-if="spend.compared && spend.comparedReach === 'none' && spend.shown!.show === 'table'" class="minor"
            >no charges are loaded for {{ periodText(spend.compared) }}</span
          >
          <span class="kinds" role="group" aria-label="Chart">
            <SentenceChoice
              label="chart"
              :options="charts.map(value => ({ value, label: chartNames[value] }))"
              :chosen="spend.sentence.chart"
              :text="chartNames[spend.sentence.chart]"
              @choose="actions.go({ chart: $event })"
            />
            <SentenceChoice
              v-if="spend.sentence.chart !== 'multiples' && spend.sentence.splitBy.length"
              label="how many values"
              :options="mostOptions"
              :chosen="String(spend.sentence.largest)"
              :text="`largest ${spend.sentence.largest}`"
              @choose="actions.go({ largest: Number($event) })"
            />
            <button
              class="kind"
              :aria-pressed="spend.sentence.show === 'comparison'"
              @click="actions.go({ show: spend.sentence.show === 'comparison' ? 'table' : 'comparison' })"
            >
              why it moved
            </button>
          </span>
        </div>
        <SpendNotes />
        <div v-if="!spend.totals.length" class="empty">
          <p class="sentence">No charges in {{ periodText(spend.period) }} under these conditions.</p>
          <p class="note">
            {{ emptyReason }}
            <button class="link" @click="actions.go({ keep: {}, leaveOut: {}, conditions: [], steps: [] })">Clear all conditions</button>
          </p>
        </div>
        <div v-else class="columns" :class="{ open: spend.workings, busy: spend.loading }">
          <div class="body">
            <template v-if="spend.shown!.show === 'comparison'"><ComparisonPanel /></template>
            <template v-else>
              <SpendChart />
              <StepColumns />
            </template>
            <SpendTable />
          </div>
          <WorkingsMargin />
        </div>
      </template>
      <ValueMenu />
    </template>
  </div>
</template>

<style scoped>
.kinds {
  margin-left: auto;
  color: var(--ink-3);
  font-size: 12px;
  display: flex;
  gap: 12px;
  align-items: center;
}
.kinds :deep(.control) {
  color: var(--ink-2);
  font-weight: 560;
  min-height: 24px;
  text-decoration: underline;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 3px;
}
.kind {
  min-height: 24px;
  padding: 0 2px;
  color: var(--act);
  font-weight: 560;
}
.kind[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -2px var(--act);
}
.other {
  font-size: 14px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 20px;
}
.columns.open {
  grid-template-columns: minmax(0, 1fr) 340px;
}
/* an answer that comes at once does not flicker */
.busy {
  opacity: 0.6;
  transition: opacity 0.15s 0.2s;
}
.body {
  min-width: 0;
}
.empty {
  padding: 30px 0;
}
</style>
