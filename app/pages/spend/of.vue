<script setup lang="ts">
import { mainTotal } from '../../../core/money/main-total'
import type { SpendQuestion } from '../../../shared/contracts/spend'
import { isDimension } from '../../../core/spend/dimensions'
import { grainStarts } from '../../../core/time/grain'

/**
 * All that stands under one value: a service whole, a SKU with every resource that uses it, an account. The list of resources can be handed
 * over.
 */
const route = useRoute()
const data = useData()
const skus = useSkuWords()
const dimension = computed(() => String(route.query.dimension ?? ''))
const value = computed(() => String(route.query.value ?? ''))
const isSku = computed(() => dimension.value === 'SkuId')
const isService = computed(() => dimension.value === 'ServiceName')
const period = ref<Sentence['period']>('last-30')
const days = computed(() => data.days)
const now = computed(() => days.value && reachingPeriod({ period: period.value }, days.value))
const { attempt, problem, busy } = useAttempt()
const answers = ref<{
  months: Answered
  accounts: Answered
  resources: Answered
  quantity: Answered
  price: Answered
  meters: Answered
  whole: Answered | null
  protects: Answered | null
} | null>(null)
const words = computed(() => (isSku.value ? skus.words[value.value] : undefined))
const label = computed(() => words.value?.words ?? value.value)
useHead({ title: computed(() => `${label.value} · Rain Barrel`) })
watch(
  () => [dimension.value, value.value, now.value?.start, now.value?.end, data.facts?.revision],
  () => {
    if (!now.value || !isDimension(dimension.value)) return
    void attempt(async () => {
      const keep = { [dimension.value]: [value.value] }
      const ask = (more: Partial<SpendQuestion>): SpendQuestion => ({
        measure: 'effectiveCost',
        splitBy: [],
        grain: null,
        ...now.value!,
        keep,
        ...more,
      })
      const all = { start: days.value!.firstDay, end: resolvePeriod('all', days.value!).end }
      const withWhole = isService.value && data.facts!.found.includes('ServiceWhole')
      const protects = data.facts!.found.includes('x_Protects')
      const list = [
        ask({ ...all, grain: 'month' }),
        ask({ splitBy: ['SubAccountName'] }),
        ask({ splitBy: ['ResourceId', 'ResourceName', 'ResourceType', 'SubAccountName', 'RegionId'] }),
        ask({ splitBy: ['ResourceId'], measure: 'pricingQuantity' }),
        ask({ ...all, measure: 'unitPrice', grain: 'month' }),
        ask({ splitBy: ['SkuId', 'SkuMeter'] }),
        ...(withWhole ? [ask({ keep: { ServiceWhole: [value.value] }, splitBy: ['ServiceName'] })] : []),
        ...(withWhole && protects ? [ask({ keep: { ServiceWhole: [value.value] }, splitBy: ['x_Protects'] })] : []),
      ]
      const found = await askAnswers(list)
      answers.value = {
        months: found[0]!,
        accounts: found[1]!,
        resources: found[2]!,
        quantity: found[3]!,
        price: found[4]!,
        meters: found[5]!,
        whole: withWhole ? found[6]! : null,
        protects: withWhole && protects ? found[7]! : null,
      }
      await skus.learn([...(isSku.value ? [value.value] : []), ...found[5]!.rows.map(row => row.values.SkuId ?? null)])
    })
  },
  { immediate: true },
)

const currency = computed(() => mainTotal(answers.value?.months.totals ?? [], data.facts?.reportCurrency ?? null)?.currency ?? 'EUR')
const totalOf = (answer: Answered) => answer.totals.find(t => t.currency === currency.value)?.amount ?? '0'
const starts = computed(() => (days.value ? grainStarts(days.value.firstDay, resolvePeriod('all', days.value).end, 'month') : []))
const monthly = computed(() => {
  const own = new Map(answers.value?.months.rows.filter(r => r.currency === currency.value).map(r => [r.start, r.amount]))
  return starts.value.map(start => own.get(start) ?? '0')
})
const resources = computed(() => (answers.value?.resources.rows ?? []).filter(row => row.currency === currency.value))
const prices = computed(() => {
  const unit = answers.value?.price.totals.find(t => t.currency.startsWith(`${currency.value} per`))?.currency
  return unit ? { unit, rows: answers.value!.price.rows.filter(row => row.currency === unit) } : null
})
/** A managed service whole: what it costs under its own name, what it made under others, and per thing it protects. */
const whole = computed(() => {
  const { whole: all, protects } = answers.value ?? {}
  if (!all || all.rows.every(row => row.values.ServiceName === value.value)) return null
  const others = all.rows.filter(row => row.currency === currency.value && row.values.ServiceName !== value.value)
  const count = new Set(protects?.rows.map(row => row.values.x_Protects).filter(Boolean)).size
  return {
    total: totalOf(all),
    own: all.rows.find(row => row.values.ServiceName === value.value && row.currency === currency.value)?.amount ?? '0',
    others,
    count,
    each: count ? divideText(totalOf(all), count) : null,
  }
})

const handOver = (format: 'csv' | 'xlsx') =>
  attempt(async () => {
    const splitBy = [
      'ResourceId',
      'ResourceType',
      'SubAccountName',
      'RegionId',
      ...(data.facts!.tags.includes('Tags/team') ? ['Tags/team'] : []),
    ]
    const { blob } = await client.file('spend/table', {
      question: { measure: 'effectiveCost', splitBy, grain: null, ...now.value!, keep: { [dimension.value]: [value.value] } },
      format,
      currency: currency.value,
      columns: ['share', 'perDay'],
      title: `${label.value}, ${periodText(now.value!)}`,
    })
    saveFile(blob, `resources-of-${value.value.replace(/\W+/g, '-')}.${format}`)
  })
const query = computed(() => ({
  keep: `${dimension.value}=${value.value}`,
  ...(typeof period.value === 'string' ? { period: period.value } : { from: period.value.start, to: period.value.end }),
}))
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!isDimension(dimension)" class="note">
      «{{ dimension }}» is no dimension of Spend. <NuxtLink class="link" to="/spend">Back to Spend</NuxtLink>
    </p>
    <template v-else>
      <h1 class="sentence">
        {{ dimensionLabel(dimension) }} <b class="named">{{ label }}</b>, in
        <PeriodChoice v-if="days" :period="period" :days="days" @choose="period = $event" />
      </h1>
      <p class="under">
        <span v-if="words">{{ value }}, charged for {{ words.charged }}</span
        ><NuxtLink class="link" :to="{ path: '/spend', query }">Open in Spend</NuxtLink
        ><NuxtLink class="link" :to="otherwiseAddress({ keep: { [dimension]: [value] } })">What would it cost otherwise?</NuxtLink>
        <SkuWordsForm v-if="isSku" :sku="value" :attempt="attempt" />
      </p>
      <NothingLoaded v-if="data.facts && !days" missing="charges" />
      <p v-else-if="answers && !answers.months.rows.length" class="note">
        No loaded charge has «{{ value }}» as its {{ dimensionLabel(dimension) }}.
        <NuxtLink class="link" :to="{ path: '/spend', query: { by: dimension, period: 'all', each: 'month' } }">See what there is</NuxtLink>
      </p>
      <template v-else-if="answers && now">
        <div class="figures">
          <span
            ><span class="big" data-testid="of-total">{{ money(totalOf(answers.accounts), currency) }} {{ currencySign(currency) }}</span
            ><span class="label">{{ periodText(now) }}</span></span
          ><span
            ><b>{{ count(resources.length) }}</b
            ><span class="label">{{ resources.length === 1 ? 'resource' : 'resources' }}</span></span
          ><span v-if="prices?.rows.length"
            ><b>{{ fullPrice(roundText(prices.rows.at(-1)!.amount, 8)) }}</b
            ><span class="label">{{ prices.unit }} in {{ monthText(prices.rows.at(-1)!.start!) }}</span></span
          >
        </div>
        <p v-if="whole" class="whole">
          In full, with what it created under other services: <b>{{ money(whole.total, currency) }} {{ currency }}</b
          >: {{ money(whole.own, currency) }} under its own name<template
            v-for="other in whole.others"
            :key="String(other.values.ServiceName)"
            >, {{ money(other.amount, currency) }} under {{ other.values.ServiceName }}</template
          >.
          <template v-if="whole.each"
            >That is <b>{{ money(whole.each, currency) }} {{ currency }}</b> for each of {{ whole.count }} that it protects.</template
          >
        </p>
        <div class="columns">
          <div>
            <TimeBars
              :label="`${label} by month`"
              :starts="starts"
              grain="month"
              :unit="currency"
              :series="[{ name: 'effective', amounts: monthly }]"
            />
            <div class="head">
              <h2 class="heading">All resources</h2>
              <button class="link" :disabled="busy" @click="handOver('csv')">Download CSV</button
              ><button class="link" :disabled="busy" @click="handOver('xlsx')">as XLSX</button>
            </div>
            <ValueResources
              :resources="answers.resources"
              :quantities="answers.quantity"
              :currency="currency"
              :total="totalOf(answers.resources)"
            />
          </div>
          <ValueParts
            :accounts="answers.accounts"
            :meters="answers.meters"
            :prices="prices"
            :currency="currency"
            :total="totalOf(answers.accounts)"
            :is-sku="isSku"
          />
        </div>
      </template>
      <p v-else-if="!problem" class="note" role="status">Reading…</p>
    </template>
  </div>
</template>

<style scoped>
.whole {
  margin: 4px 0;
  color: var(--ink-2);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.8fr) minmax(0, 1fr);
  gap: 34px;
  margin-top: 8px;
}
.head {
  display: flex;
  gap: 16px;
  align-items: baseline;
  margin-top: 16px;
}
.head .heading {
  margin: 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
