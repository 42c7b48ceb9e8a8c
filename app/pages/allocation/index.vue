<script setup lang="ts">
import { upliftSums } from '../../../core/allocation/uplifts-below'
import { addMonths } from '../../../core/time/day'

const allocation = useAllocation()
const closings = useClosings()
const organisation = useOrganisationFile()
const data = useData()
const route = useRoute()
const router = useRouter()
useHead({ title: 'Allocation · Rain Barrel' })

// whole months are what one allocates first: the first that is open, else the last that has ended
const months = computed(() => data.months)
const month = computed(() => {
  const asked = String(route.query.month ?? '')
  const open = closings.firstOpen !== null && months.value.includes(closings.firstOpen) ? closings.firstOpen : null
  return months.value.includes(asked) ? asked : (open ?? months.value[1] ?? months.value[0] ?? '')
})
/** How the month was closed: another basis can be looked at, but is not what was closed. */
const closedState = computed(() => closings.stateOf(month.value))
const measure = computed(() => {
  const asked = route.query.cost ?? (closedState.value?.measure === 'billedCost' ? 'billed' : 'effective')
  return asked === 'billed' ? ('billedCost' as const) : ('effectiveCost' as const)
})
const currency = computed(() =>
  allocation.currencies.includes(String(route.query.currency)) ? String(route.query.currency) : allocation.mainCurrency,
)
/** Another tree than the first. */
const tree = computed(() => (typeof route.query.tree === 'string' ? route.query.tree : undefined))
/** Trees by their names; the first is the organisation's. */
const treeNames = computed(() => [
  { value: '', label: 'the organisation' },
  ...allocation.trees.map(({ id, name }) => ({ value: id, label: name || 'a tree without a name' })),
])
const centre = computed(
  () =>
    allocation.tree.find(c => c.id === route.query.centre)?.id ??
    allocation.tree.find(c => c.depth > 1)?.id ??
    allocation.tree[0]?.id ??
    null,
)
const go = (change: Record<string, string | undefined>) => router.push({ query: { ...route.query, ...change } })

watch(
  () => [month.value, measure.value, tree.value, data.facts?.revision] as const,
  () => {
    if (month.value) void allocation.load({ month: month.value, measure: measure.value, tree: tree.value })
  },
  { immediate: true },
)

onBeforeRouteLeave(() => !allocation.draft || window.confirm('The rules have changes that are not saved. Leave them as a draft?'))

const session = useSession()
const bound = computed(() => session.person?.bound ?? null)
const borne = computed(() => allocation.borne.find(one => one.currency === currency.value) ?? null)
const proof = computed(() => allocation.proofOf(currency.value))
const uplifts = computed(() => upliftSums(allocation.settled?.uplifts ?? [], currency.value))
const allEqual = computed(() => allocation.settled?.proof.every(p => p.equal) ?? false)
/** Brings a part of the page into view, and the focus with it. */
function intoView(label: string) {
  const part = document.querySelector<HTMLElement>(`[aria-label="${label}"]`)
  part?.setAttribute('tabindex', '-1')
  part?.scrollIntoView({ block: 'center' })
  part?.focus()
}
const stepMonth = (step: 1 | -1) => {
  const next = addMonths(month.value, step)
  if (months.value.includes(next)) void go({ month: next })
}
useSingleKey('[', () => stepMonth(-1), 'the month before')
useSingleKey(']', () => stepMonth(1), 'the month after')
</script>

<template>
  <div class="page">
    <PlaceNav place="Allocation" />
    <p v-if="data.facts && !data.facts.lastDay" class="sentence">
      Nothing is loaded yet. <NuxtLink to="/sources" class="link">Drop a bill under Sources</NuxtLink>
    </p>
    <FirstCentre v-else-if="allocation.missing" />
    <template v-else>
      <h1 v-if="month" class="sentence">
        {{ bound || allocation.closed ? 'Read' : 'Share out' }}
        <SentenceChoice
          label="billing month"
          :options="months.map(m => ({ value: m, label: monthText(m) }))"
          :chosen="month"
          :text="monthText(month)"
          @choose="go({ month: $event })"
        />,
        <SentenceChoice
          label="cost basis"
          :options="[
            { value: 'effective', label: 'effective cost' },
            { value: 'billed', label: 'billed cost' },
          ]"
          :chosen="measure === 'billedCost' ? 'billed' : 'effective'"
          :text="measure === 'billedCost' ? 'billed cost' : 'effective cost'"
          @choose="go({ cost: $event })"
        />, in
        <SentenceChoice
          label="currency"
          :options="allocation.currencies.map(c => ({ value: c, label: c }))"
          :chosen="currency"
          :text="currency"
          @choose="go({ currency: $event })"
        />, {{ bound ? 'on your cost centres.' : 'among the cost centres of' }}
        <template v-if="!bound"
          ><SentenceChoice
            label="tree of cost centres"
            :options="treeNames"
            :chosen="allocation.treeId ?? ''"
            :text="treeNames.find(({ value }) => value === (allocation.treeId ?? ''))?.label ?? 'the organisation'"
            @choose="go({ tree: $event || undefined, centre: undefined })"
          />.</template
        >
      </h1>
      <ProblemNote v-if="allocation.problem" :problem="allocation.problem" :retry="() => allocation.again()" />
      <p v-if="!allocation.settled && !allocation.problem" class="note" role="status">Adding up the month…</p>
      <p v-if="allocation.settled && bound && !borne" class="note">Nothing landed on your cost centres in {{ monthText(month) }}.</p>
      <template v-if="allocation.settled && bound && borne">
        <div class="proof" data-testid="borne">
          <b>{{ money(borne.total, currency) }} {{ currencySign(currency) }}</b> on {{ bound.map(({ name }) => name).join(', ') }}
          <span>=</span>{{ ' ' }} <b>{{ money(borne.direct, currency) }}</b> direct <span>+</span>{{ ' ' }}
          <b>{{ money(borne.shared, currency) }}</b> borne of shared cost
        </div>
        <div class="columns" :class="{ busy: allocation.loading }">
          <div class="body">
            <CentreTree :currency="currency" :chosen="centre" @choose="go({ centre: $event })" />
          </div>
          <aside class="margin">
            <CentreStatement v-if="centre" :centre="centre" :currency="currency" :month="month" />
          </aside>
        </div>
      </template>
      <template v-if="allocation.settled && proof">
        <div class="proof" data-testid="proof">
          <b>{{ money(proof.bill, currency) }} {{ currencySign(currency) }}</b> bill <span>=</span>{{ ' ' }}
          <b>{{ money(proof.direct, currency) }}</b> direct <span>+</span> <b>{{ money(proof.shared, currency) }}</b> shared out
          <span>+</span> <b :class="{ warn: proof.unallocated !== '0' }">{{ money(proof.unallocated, currency) }}</b> unallocated,
          {{ percent(proof.unallocated, proof.bill) }}
          <span class="sums" :class="allEqual ? 'good' : 'bad'"
            >{{ allEqual ? 'adds up to the last digit, in' : 'does not add up in' }}
            {{
              allEqual
                ? allocation.currencies.join(', ')
                : allocation.settled.proof
                    .filter(p => !p.equal)
                    .map(p => p.currency)
                    .join(', ')
            }}</span
          >
        </div>
        <AdjustedBill :currency="currency" :month="month" />
        <p v-if="Number(uplifts.borne) || Number(uplifts.onNone)" class="minor" data-testid="uplifts-beside">
          Beside the bill, <NuxtLink class="link" to="/estimates/uplifts">uplifts</NuxtLink> on what ran:
          <b>{{ money(uplifts.borne, currency) }}</b> on cost centres<template v-if="Number(uplifts.onNone)"
            >, <b>{{ money(uplifts.onNone, currency) }}</b> on what is unallocated</template
          >.
        </p>
        <DraftBar :measure="measure" />
        <div class="columns" :class="{ busy: allocation.loading }">
          <div class="body">
            <FlowPicture
              :currency="currency"
              @centre="go({ centre: $event })"
              @pool="intoView('Pools')"
              @unallocated="intoView('Unallocated queue')"
            />
            <TreeBar @tree="go({ tree: $event, centre: undefined })" />
            <RuleList :currency="currency" />
            <PoolList :currency="currency" />
            <CentreTree :currency="currency" :chosen="centre" @choose="go({ centre: $event })" />
            <PeopleList v-if="allocation.treeId === null" />
          </div>
          <aside class="margin">
            <MonthState :month="month" :currency="currency" @basis="go({ cost: $event })" />
            <UnallocatedQueue :currency="currency" :month="month" @rule="allocation.ruleFor" />
            <CentreStatement v-if="centre" :centre="centre" :currency="currency" :month="month" />
            <p v-if="allocation.saved" class="minor saved">
              Rules saved by {{ allocation.saved.who }}, {{ timeText(allocation.saved.savedAt) }}, version {{ allocation.saved.version }}.
              <button class="link" @click="organisation.download()">Download cost centres and rules</button>, or as CSV
              <button class="link" @click="organisation.downloadTable('centres')">cost centres</button>
              <button class="link" @click="organisation.downloadTable('rules')">rules</button>
            </p>
            <PlanVersions v-if="allocation.saved" />
          </aside>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.proof {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: baseline;
  color: var(--ink-2);
  margin: 2px 0 8px;
}
.proof b {
  font: 600 16px var(--serif);
  color: var(--ink);
}
.proof b.warn {
  color: var(--warn);
}
.sums {
  margin-left: auto;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 390px;
  gap: 22px;
}
.columns.busy {
  opacity: 0.6;
}
.body,
.margin {
  min-width: 0;
  overflow-x: auto;
}
.saved {
  margin-top: 10px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
