<script setup lang="ts">
import { adjustmentsBelow, type Adjustment } from '../../../core/allocation/closing/adjustments'
import { traceOf } from '../../../core/allocation/trace'
import { upliftsBelow, type UpliftsBelow } from '../../../core/allocation/uplifts-below'
import { adjustmentWords, causeWords, upliftWords } from '../../../core/allocation/statements/month-statements'
import { rollUp } from '../../../core/allocation/tree'
import { addTexts } from '../../../core/money/amount-text'
import type { Statement, StatementFormat } from '../../../shared/contracts/allocation'

/** What a cost centre bears of a month; each line leads to its charges, by the rules that put them there. */
const props = defineProps<{ centre: string; currency: string; month: string }>()
const allocation = useAllocation()
const closings = useClosings()
const statement = computed(
  () => allocation.settled!.statements.find(s => s.centre === props.centre && s.currency === props.currency) ?? null,
)
const children = computed(() => allocation.tree.filter(c => c.parent === props.centre))
const amounts = computed(() => allocation.rolledUp(props.currency))
const session = useSession()
/** Spend narrowed to what is behind a line; null where that is not for who asks: what lies in a pool. */
function behind(line: Statement['lines'][number] | Adjustment['lines'][number], month = props.month) {
  if (line.kind === 'unallocated' || (line.kind === 'share' && !session.seesAll)) return null
  return { path: '/spend', query: writeSentence({ ...readSentence({}), ...traceOf(line, traced(month), session.seesAll) }) }
}
function traced(month = props.month) {
  const { measure, tree } = allocation.question!
  return { centre: props.centre, currency: props.currency, month, measure, tree: tree ?? null }
}
/** The line whose Workings are open. */
const opened = ref<number | null>(null)
watch(
  () => [props.centre, props.currency, allocation.settled],
  () => {
    opened.value = null
  },
)
/** What months closed before are adjusted by here and below. */
const adjustments = computed(() =>
  adjustmentsBelow(allocation.centres, allocation.settled!.adjustments, props.centre).filter(one => one.currency === props.currency),
)
/** The organisation's uplifts here and below. */
const uplifts = computed(() => upliftsBelow(allocation.centres, allocation.settled!.uplifts, props.centre, props.currency))
const upliftText = ({ times, pool }: UpliftsBelow) =>
  upliftWords({ pool, times: times && { ...times, quantity: quantity(times.quantity) } })
const total = computed(() => amounts.value.get(props.centre)!.total)
const toBear = computed(() => addTexts([total.value, ...adjustments.value.map(({ amount }) => amount)]))
/** Of a closed month only what was closed leaves as a statement. */
const isOtherwise = computed(() => allocation.closed === null && closings.stateOf(props.month) !== null)
const stateWords = computed(() => (allocation.closed ? 'closed' : isOtherwise.value ? 'as it is today' : 'draft'))
/** The statement, with those below it, as a file; what is not saved is in none. */
const file = (format: StatementFormat, centre: string | null = props.centre) => {
  const query = monthQuery({ ...allocation.question!, month: props.month })
  if (centre) query.set('centre', centre)
  return `/api/v1/allocation/statements/${format}?${query}`
}
const charges = computed(() => {
  return `/api/v1/allocation/charges?${monthQuery({ ...allocation.question!, month: props.month })}`
})
const share = (part: string, of: string) => percent(part, of)

// what is not saved is compared with nothing
const { beside, problem } = useStatementsBeside(computed(() => (allocation.draft ? null : allocation.question)))
/** What it and all below it bore of the bill of the month before. */
const before = computed(() => {
  const then = beside.value?.before
  if (!then) return null
  const amounts = then.totals.map(({ centre, currency, total }) => ({ centre, currency, direct: total, shared: '0', total }))
  return { month: then.month, total: rollUp(allocation.centres, amounts, props.currency).get(props.centre)?.total ?? '0' }
})
const unitCosts = computed(() => beside.value?.unitCosts.filter(one => one.centre === props.centre) ?? [])
/** With four digits: one is little. */
const each = (amount: string) => decimals(amount, 4)
const changeWords = (now: string, then: string) => (Number(then) === 0 ? '' : percentText(changeShare(now, then)!))
</script>

<template>
  <section aria-label="Statement">
    <div class="headed">
      <h2 class="heading">Statement · {{ allocation.targetName(centre) }}</h2>
      <span class="minor">{{ monthText(month) }}, {{ stateWords }}</span>
    </div>
    <table class="ledger" data-testid="statement">
      <tbody>
        <template v-if="statement">
          <template v-for="(line, index) in statement.lines" :key="index">
            <tr>
              <td v-if="line.kind === 'direct'">
                <NuxtLink class="link" :to="behind(line)!">{{ valueLabel('ServiceName', line.service) }}</NuxtLink>
              </td>
              <td v-else>
                <NuxtLink v-if="behind(line)" class="link" :to="behind(line)!">{{ line.pool }}</NuxtLink><template v-else>{{
                  line.pool
                }}</template
                >, {{ line.ofPool === null ? '' : `${share(line.amount, line.ofPool)} of ${money(line.ofPool, currency)}, ` }}{{ line.label
                }}<br v-if="line.note" /><span v-if="line.note" class="warn">{{ line.note }}</span>
              </td>
              <td class="n">
                <button
                  class="figure"
                  :class="{ open: opened === index }"
                  :aria-expanded="opened === index"
                  title="Workings"
                  @click="opened = opened === index ? null : index"
                >
                  {{ money(line.amount, currency) }}
                </button>
              </td>
            </tr>
            <tr v-if="opened === index" class="opened">
              <td colspan="2"><StatementWorkings :line="line" :of="traced()" /></td>
            </tr>
          </template>
        </template>
        <tr v-for="child in children" :key="child.id">
          <td>{{ child.name }}</td>
          <td class="n">{{ money(amounts.get(child.id)!.total, currency) }}</td>
        </tr>
        <tr v-if="!statement && !children.length">
          <td>Nothing landed here in {{ currency }}.</td>
          <td class="n">–</td>
        </tr>
        <tr class="total">
          <td>{{ monthText(month) }}</td>
          <td class="n">{{ money(total, currency) }} {{ currency }}</td>
        </tr>
        <tr v-if="before" class="minor" data-testid="month-before">
          <td>
            {{ monthText(before.month)
            }}{{
              beside!.to === null ? `, ${changeWords(total, before.total)} since` : `; this month reaches to ${dayText(beside!.to)} only`
            }}
          </td>
          <td class="n">{{ money(before.total, currency) }}</td>
        </tr>
        <template v-for="one in adjustments" :key="`${one.month} ${one.cause}`">
          <tr class="adjustment">
            <td>Adjustment of {{ monthText(one.month) }}: {{ causeWords[one.cause] }}</td>
            <td class="n">{{ signedMoney(one.amount, currency) }}</td>
          </tr>
          <tr v-for="(line, index) in one.lines" :key="index" class="part">
            <td>
              <NuxtLink v-if="behind(line, one.month)" class="link" :to="behind(line, one.month)!">{{
                adjustmentWords(line)
              }}</NuxtLink><template v-else>{{ adjustmentWords(line) }}</template>
            </td>
            <td class="n minor">{{ signedMoney(line.amount, currency) }}</td>
          </tr>
        </template>
        <tr v-if="adjustments.length" class="total" data-testid="to-bear">
          <td>To bear, with adjustments</td>
          <td class="n">{{ money(toBear, currency) }} {{ currency }}</td>
        </tr>
        <template v-if="uplifts.length">
          <tr class="minor">
            <td colspan="2">Beside the bill: uplifts on what ran</td>
          </tr>
          <tr v-for="(one, index) in uplifts" :key="`uplift ${index}`" class="part" data-testid="uplift">
            <td>
              {{ one.name }}: {{ one.label }}<br /><span class="minor">{{ upliftText(one) }}</span>
            </td>
            <td class="n">{{ money(one.amount, currency) }}</td>
          </tr>
          <tr class="total" data-testid="uplifts">
            <td>Uplifts</td>
            <td class="n">{{ money(addTexts(uplifts.map(({ amount }) => amount)), currency) }} {{ currency }}</td>
          </tr>
        </template>
        <tr v-for="one in unitCosts" :key="one.measure" data-testid="unit-cost">
          <td>
            <NuxtLink class="link" :to="{ path: '/allocation/unit-costs', query: { measure: one.measure } }">a {{ one.unit }}</NuxtLink
            ><template v-if="one.unitCost !== null && one.quantity !== null">, of {{ quantity(one.quantity) }}</template
            ><template v-if="one.unitCost !== null && one.before !== null">, {{ changeWords(one.unitCost, one.before) }}</template>
          </td>
          <td class="n">{{ one.unitCost === null ? 'not defined' : `${each(one.unitCost)} ${one.currency}` }}</td>
        </tr>
      </tbody>
    </table>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!allocation.draft && !isOtherwise" class="minor files">
      This one and those below it as <a class="link" :href="file('pdf')" download>PDF</a>
      <a class="link" :href="file('csv')" download>CSV</a> <a class="link" :href="file('xlsx')" download>XLSX</a><br />
      All statements as <a class="link" :href="file('pdf', null)" download>PDF</a>
      <a class="link" :href="file('csv', null)" download>CSV</a> <a class="link" :href="file('xlsx', null)" download>XLSX</a>
      <a v-if="allocation.closed?.purpose !== 'showback'" class="link" :href="file('journal', null)" download>journal for the ledger</a>
      <template v-if="session.seesAll"
        ><br />Every charge line with its owner, as <a class="link" :href="charges" download>FOCUS CSV</a
        >{{ closings.stateOf(month) ? ', as it is known today' : '' }}
      </template>
    </p>
  </section>
</template>

<style scoped>
section {
  margin-top: 18px;
}
.files {
  margin-top: 6px;
}
.files .link {
  margin-right: 6px;
}
.part td:first-child {
  padding-left: 18px;
}
</style>
