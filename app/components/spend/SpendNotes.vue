<script setup lang="ts">
import { tagKey } from '../../../core/focus/star'
import { firstSeen } from '../../../shared/contracts/spend'

/**
 * What one must know to read the total: what distorts it, what has no rate, from when a tag is reported. Each with its size and one action.
 */
const spend = useSpend()
const actions = useSpendActions()
const { attempt } = useAttempt()
const data = useData()

const amounts = (totals: { currency: string; amount: string }[]) =>
  totals.map(({ currency, amount }) => `${measured(amount, currency, spend.shown!.measure)} ${currency}`).join(' and ')
/** Who has delivered a part of the day, and when. */
const partOf = computed(() =>
  (data.partial?.sources ?? []).map(({ source, deliveredAt }) => `${source} (${timeText(deliveredAt)})`).join(', '),
)
const MOST_NAMED = 3
/** How the total by billing periods differs from that by charge periods, and by which charges. */
const otherBasis = computed(() => {
  const { otherBasis: other, currency, total, shown } = spend
  if (!other || !spend.additive || !shown) return null
  const theirs = other.totals.find(t => t.currency === currency)?.amount ?? '0'
  const difference = subtractTexts(theirs, total)
  if (Number(difference) === 0) return null
  const own = (rows: typeof other.here) => rows.filter(row => row.currency === currency)
  const listed = [
    ...own(other.there).map(row => ({ ...row, signed: row.amount })),
    ...own(other.here).map(row => ({ ...row, signed: subtractTexts('0', row.amount) })),
  ].sort((a, b) => Math.abs(Number(b.signed)) - Math.abs(Number(a.signed)))
  const named = listed
    .slice(0, MOST_NAMED)
    .map(
      row =>
        `${row.values.ChargeDescription ?? row.values.ChargeCategory ?? 'charges without description'} ${measured(row.signed, currency, shown.measure)}`,
    )
  const more = listed.length - named.length
  const by = shown.basis === 'billing' ? 'charge period' : 'billing period'
  return {
    said: `By ${by} it is ${measured(sizeText(difference), currency, shown.measure)} ${currency} ${difference.startsWith('-') ? 'less' : 'more'}: ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`,
  }
})
const tagsFrom = ref<{ key: string; firstDay: string }[]>([])

// missing is not the same as not yet reported: where the period begins before a tag was first seen, that is said
const keys = computed(() => [
  ...new Set([...(spend.shown?.splitBy ?? []), ...Object.keys(spend.shown?.keep ?? {})].flatMap(d => tagKey(d) ?? [])),
])
watch(
  () => [keys.value.join(), spend.period.start] as const,
  () =>
    attempt(async () => {
      if (!keys.value.length) tagsFrom.value = []
      else
        tagsFrom.value = (await client.send('POST', 'spend/tags/first-seen', { keys: keys.value }, firstSeen)).tags.filter(
          tag => tag.firstDay > spend.period.start,
        )
    }),
  { immediate: true },
)
</script>

<template>
  <div class="notes">
    <p v-if="spend.partDay" class="distortion" data-testid="part-day">
      {{ dayText(spend.partDay.day) }} is delivered in part, {{ amounts(spend.partDay.totals) }} so far by {{ partOf }}: it is neither in
      the total nor compared.
    </p>
    <p v-if="spend.later" class="distortion" data-testid="later">
      {{ amounts(spend.later.totals) }} begin later, from {{ dayText(spend.later.from) }} on: not in these figures.
      <button class="link" @click="actions.go({ period: { start: spend.later.from, end: '2101-01-01' } })">Look at them</button>
    </p>
    <p v-if="otherBasis" class="distortion" data-testid="other-basis">
      {{ otherBasis.said }}
      <button class="link" @click="actions.go({ basis: spend.shown!.basis === 'billing' ? 'charge' : 'billing' })">
        {{ spend.shown!.basis === 'billing' ? 'Go by charge period' : 'Go by billing period' }}
      </button>
    </p>
    <p v-for="distortion in spend.distortions" :key="distortion.id" class="distortion">
      {{ distortion.said }} <button class="link" @click="actions.go(distortion.change)">{{ distortion.action }}</button>
    </p>
    <p v-for="gap in spend.unconverted" :key="gap.currency + gap.from" class="distortion">
      No rate from {{ gap.currency }} to {{ spend.shown!.reportCurrency }} for {{ periodText({ start: gap.from, end: gap.to }) }}:
      {{ money(gap.amount, gap.currency) }} {{ gap.currency }} stand apart.
      <NuxtLink to="/sources/rates" class="link">Bring rates</NuxtLink>
    </p>
    <p v-for="tag in tagsFrom" :key="tag.key" class="distortion">
      The {{ tag.key }} tag was first seen on {{ dayText(tag.firstDay) }}: before, it is not missing but not yet reported.
      <button
        class="link"
        @click="actions.go({ period: { start: tag.firstDay, end: spend.period.end > tag.firstDay ? spend.period.end : tag.firstDay } })"
      >
        Look from then on
      </button>
    </p>
  </div>
</template>

<style scoped>
.distortion {
  color: var(--warn);
}
</style>
