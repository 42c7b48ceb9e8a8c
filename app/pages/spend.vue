<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { daysBetween } from '../../core/time/day'

const spend = useSpend()
const data = useData()
const route = useRoute()
const router = useRouter()
const actions = useSpendActions()
useHead({ title: 'Spend · Rain Barrel' })

watch(() => [route.query, data.facts?.revision] as const, () => {
  if (route.path === '/spend' && data.facts?.lastDay) void spend.load(readView(route.query, data.facts.lastDay))
}, { immediate: true, deep: true })

const days = computed(() => spend.view ? daysBetween(spend.view.period.start, spend.view.period.end) : 0)
const difference = computed(() => spend.totalBefore === null ? null : subtractTexts(spend.total, spend.totalBefore))
const signed = (amount: string) => `${whole(sizeText(amount))} ${currencySign(spend.currency)} ${amount.startsWith('-') ? 'less' : 'more'} than`
/** What is looked at, handed to Estimates: the month that the period begins in, with the narrowing. */
const estimateFromThis = computed(() => ({ path: '/estimates', query: { month: spend.view!.period.start.slice(0, 7), keep: JSON.stringify(keptWithSteps(spend.view!)), leaveOut: JSON.stringify(spend.view!.leaveOut) } }))
const perDay = computed(() => whole(divideText(spend.total, Math.max(1, days.value))))

// Esc steps back: first what is open, then the last change of the address
onKeyStroke('Escape', (event) => {
  if (event.defaultPrevented) return
  if (spend.workings) spend.workings = null
  else if (!spend.menu && Object.keys(route.query).length && !document.querySelector('[data-reka-popper-content-wrapper]')) router.back()
})
</script>

<template>
  <div class="page" :aria-busy="spend.loading">
    <p v-if="data.facts && !data.facts.lastDay" class="sentence">Nothing is loaded yet. <NuxtLink to="/sources" class="link">Drop a bill under Sources</NuxtLink></p>
    <p v-else-if="data.failed" class="note">The charges could not be reached. <button class="link" @click="data.load()">Try again</button></p>
    <p v-else-if="!spend.ready && !spend.problem" class="note" role="status">Reading the charges…</p>
    <template v-if="spend.view && data.facts?.lastDay">
      <SpendSentence />
      <ProblemNote v-if="spend.problem" :problem="spend.problem" :retry="() => spend.load(spend.view!)" />
      <template v-if="spend.ready">
        <div class="figures" :class="{ busy: spend.loading }">
          <span><span class="big" data-testid="total">{{ money(spend.total, spend.currency) }} {{ currencySign(spend.currency) }}</span><span class="label">{{ days }} {{ days === 1 ? 'day' : 'days' }}</span></span>
          <span v-for="other in spend.totals.filter(t => t.currency !== spend.currency)" :key="other.currency"><button class="link other" @click="actions.go({ currency: other.currency })">{{ money(other.amount, other.currency) }} {{ other.currency }}</button></span>
          <span><b>{{ perDay }} {{ currencySign(spend.currency) }}</b><span class="label">a day</span></span>
          <span v-if="difference !== null && spend.compared"><ChangeMark :now="spend.total" :before="spend.totalBefore" /> <span class="minor">{{ signed(difference) }} {{ periodText(spend.compared) }}</span></span>
          <NuxtLink :to="estimateFromThis" class="link">Estimate from this</NuxtLink>
          <span class="kinds" role="group" aria-label="Chart">
            <button class="kind" :aria-pressed="spend.view.chart === 'columns'" @click="actions.go({ chart: 'columns' })">columns</button> ·
            <button class="kind" :aria-pressed="spend.view.chart === 'lines'" @click="actions.go({ chart: 'lines' })">lines</button>
          </span>
        </div>
        <p v-if="spend.hidden" class="offset">
          Credits and adjustments take {{ money(spend.hidden.less, spend.currency) }} {{ spend.currency }} off {{ money(spend.hidden.usage, spend.currency) }} {{ spend.currency }} of usage.
          <button class="link" @click="actions.go({ keep: withValue(spend.view.keep, 'ChargeCategory', 'Usage') })">Look at usage alone</button>
        </p>
        <div v-if="!spend.totals.length" class="empty">
          <p class="sentence">No charges in {{ periodText(spend.view.period) }} under these conditions.</p>
          <p class="note">Charges are loaded from {{ dayText(data.facts.firstDay!) }} to {{ dayText(data.facts.lastDay) }}. <button class="link" @click="actions.go({ keep: {}, leaveOut: {}, steps: [] })">Take all conditions away</button></p>
        </div>
        <div v-else class="columns" :class="{ open: spend.workings, busy: spend.loading }">
          <div class="body">
            <SpendChart />
            <StepColumns />
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
.kinds { margin-left: auto; color: var(--ink-3); font-size: 12px; }
.kind { min-height: 24px; padding: 0 2px; }
.kind[aria-pressed='true'] { color: var(--ink); font-weight: 650; }
.other { font-size: 14px; }
.offset { color: var(--warn); }
.columns { display: grid; grid-template-columns: minmax(0, 1fr); gap: 20px; transition: opacity .15s; }
.columns.open { grid-template-columns: minmax(0, 1fr) 340px; }
.busy { opacity: .6; }
.body { min-width: 0; }
.empty { padding: 30px 0; }
</style>
