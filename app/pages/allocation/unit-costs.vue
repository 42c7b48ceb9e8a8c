<script setup lang="ts">
import { monthOf } from '../../../core/time/day'
import { measureList, unitCosts, type MeasureList, type UnitCosts, type UnitCostsAsked } from '../../../shared/contracts/measures'

/** What one of a business measure costs, month by month, product beside product. */
useHead({ title: 'Unit costs · Rain Barrel' })
const data = useData()
const session = useSession()
const route = useRoute()
const router = useRouter()
const go = (change: Record<string, string | undefined>) => router.push({ query: { ...route.query, ...change } })
const { attempt, problem, busy } = useAttempt()

const list = shallowRef<MeasureList['measures'] | null>(null)
const found = shallowRef<UnitCosts | null>(null)
const name = computed(() => list.value?.find(one => one.name === route.query.measure)?.name ?? list.value?.[0]?.name ?? null)
const of = computed(() => (route.query.of === 'direct' ? ('direct' as const) : ('full' as const)))
const cost = computed(() => (route.query.cost === 'billed' ? ('billedCost' as const) : ('effectiveCost' as const)))
const until = computed(() => (data.facts?.lastDay ? monthOf(data.facts.lastDay) : null))
const load = () =>
  attempt(async () => {
    await session.load()
    list.value = (await client.get('measures', measureList)).measures
  })
onMounted(load)
let asked = new AbortController()
watch(
  [name, of, cost, until, list, () => data.facts?.revision],
  () =>
    attempt(async () => {
      asked.abort()
      const { signal } = (asked = new AbortController())
      if (!name.value || !until.value) return void (found.value = null)
      const question: UnitCostsAsked = { measure: name.value, cost: cost.value, of: of.value, until: until.value, months: 13 }
      const query = new URLSearchParams({ ...question, months: '13' })
      try {
        const reply = await client.get(`unit-costs?${query}`, unitCosts, signal)
        if (!signal.aborted) found.value = reply
      } catch (error) {
        if (!signal.aborted) throw error
      }
    }),
  { immediate: true },
)
const months = computed(() => found.value?.products[0]?.months.map(one => one.month) ?? [])
const series = computed(() =>
  (found.value?.products ?? []).map(({ name, months }) => ({ name, values: months.map(({ unitCost }) => unitCost) })),
)
/** As many digits as tell the amounts of the page apart. */
const digits = computed(() => {
  const largest = Math.max(0, ...series.value.flatMap(({ values }) => values.map(value => Math.abs(Number(value ?? 0)))))
  return largest >= 100 ? 2 : largest >= 1 ? 3 : 4
})
const each = (amount: string) => decimals(amount, digits.value)
const change = (values: readonly (string | null)[], at: number) => {
  const [now, before] = [values[at], at > 0 ? values[at - 1] : null]
  return now && before && Number(before) !== 0 ? changeShare(now, before) : null
}
const why = (one: UnitCosts['products'][number]['months'][number]) => {
  const late = found.value!.late.filter(({ month }) => month === one.month)
  if (late.length) return `${late.map(({ source, lastDay }) => `${source} reaches to ${dayText(lastDay)}`).join(', ')}`
  if (one.noRate.length) return `no rate for ${one.noRate.join(', ')}`
  if (one.quantity === null) return 'nothing is told'
  if (one.missing) return `${count(one.missing)} ${one.missing === 1 ? 'day' : 'days'} missing`
  if (one.to && found.value?.grain === 'month') return 'the month is not over'
  return Number(one.quantity) === 0 ? 'none was counted' : ''
}
type Behaviour = UnitCosts['products'][number]['behaviour']
const rounded = (value: number, digits: number) => decimals(value.toFixed(digits), digits)
const behaviourOf = (behaviour: Behaviour) => {
  const { currency, unit } = found.value!
  if ('why' in behaviour)
    return behaviour.why === 'too few points'
      ? `a fixed and a variable part cannot be told from ${behaviour.points} whole months: it takes 12`
      : 'a fixed and a variable part cannot be told: every month has as many'
  const { fixed, variable, explained } = behaviour
  return `${rounded(fixed.value, 0)} ${currency} a month are fixed (${rounded(fixed.low, 0)} to ${rounded(fixed.high, 0)}), each ${unit} adds ${rounded(variable.value, 4)} (${rounded(variable.low, 4)} to ${rounded(variable.high, 4)}), with 95 % confidence; the number of them explains ${ratioText(explained)} of what the cost varies by`
}
</script>

<template>
  <div class="page">
    <PlaceNav place="Allocation" />
    <h1 v-if="name && list" class="sentence">
      The cost of one
      <SentenceChoice
        label="business measure"
        :options="list.map(one => ({ value: one.name, label: one.name }))"
        :chosen="name"
        :text="list.find(one => one.name === name)!.unit"
        @choose="go({ measure: $event })"
      />
      by
      <SentenceChoice
        label="direct or full cost"
        :options="[
          { value: 'full', label: 'full', note: 'with what is borne of shared cost' },
          { value: 'direct', label: 'direct', note: 'without shared cost' },
        ]"
        :chosen="of"
        :text="of"
        @choose="go({ of: $event })"
      />{{ ' '
      }}<SentenceChoice
        label="cost basis"
        :options="[
          { value: 'effective', label: 'effective cost' },
          { value: 'billed', label: 'billed cost' },
        ]"
        :chosen="cost === 'billedCost' ? 'billed' : 'effective'"
        :text="cost === 'billedCost' ? 'billed cost' : 'effective cost'"
        @choose="go({ cost: $event })"
      /><template v-if="found">, in {{ found.currency }}</template
      >, month by month.
    </h1>
    <h1 v-else-if="list" class="sentence">No business measures yet.</h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="busy && !found" class="note" role="status">Adding up the months…</p>
    <template v-if="found">
      <UnitCostLines v-if="months.length > 1" :series="series" :months="months" :unit="found.unit" :format="each" />
      <div class="scroll" tabindex="0" role="group" aria-label="unit costs by month">
        <table class="ledger" data-testid="unit-costs">
          <thead>
            <tr>
              <th rowspan="2">month</th>
              <th v-for="product in found.products" :key="product.centre" colspan="4" class="product">{{ product.name }}</th>
            </tr>
            <tr>
              <template v-for="product in found.products" :key="product.centre">
                <th class="n">a {{ found.unit }}</th>
                <th class="n">change</th>
                <th class="n">{{ of }} cost</th>
                <th class="n">{{ found.name }}</th>
              </template>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(month, i) in months" :key="month">
              <td class="month">
                {{ monthText(month) }}
                <span v-if="found.products[0]!.months[i]!.to" class="minor">to {{ dayText(found.products[0]!.months[i]!.to!) }}</span>
              </td>
              <template v-for="(product, p) in found.products" :key="product.centre">
                <td class="n">
                  <b v-if="product.months[i]!.unitCost">{{ each(product.months[i]!.unitCost!) }}</b><span
                    v-else
                    class="minor"
                    :title="why(product.months[i]!)"
                    >– {{ why(product.months[i]!) }}</span
                  >
                </td>
                <td class="n minor">{{ change(series[p]!.values, i) === null ? '' : percentText(change(series[p]!.values, i)!) }}</td>
                <td class="n">{{ product.months[i]!.cost === null ? '–' : money(product.months[i]!.cost!, found.currency) }}</td>
                <td class="n">{{ product.months[i]!.quantity === null ? '–' : quantity(product.months[i]!.quantity!) }}</td>
              </template>
            </tr>
            <tr class="total">
              <td>together</td>
              <template v-for="product in found.products" :key="product.centre">
                <td class="n">{{ product.whole === null ? '–' : each(product.whole) }}</td>
                <td />
                <td colspan="2" class="minor">Σ cost ÷ Σ {{ found.name }}, where both are there</td>
              </template>
            </tr>
          </tbody>
        </table>
      </div>
      <ul class="behaviour" data-testid="behaviour">
        <li v-for="product in found.products" :key="product.centre">
          <b>{{ product.name }}</b>: {{ behaviourOf(product.behaviour) }}.
        </li>
      </ul>
      <p class="minor">
        The cost of a cost centre and all below it, by billing month; closed months as they are known today. What is billed in another
        currency is converted at the rate of the month’s last day.
      </p>
    </template>
    <BusinessMeasures v-if="session.seesAll && list" :list="list" @changed="load" />
  </div>
</template>

<style scoped>
.product {
  text-align: center;
  border-left: 1px solid var(--line);
}
.month {
  white-space: nowrap;
}
.behaviour {
  margin: 10px 0 4px;
  padding-left: 18px;
  list-style: disc;
}
</style>
