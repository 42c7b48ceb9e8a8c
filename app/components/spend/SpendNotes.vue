<script setup lang="ts">
import { tagKey } from '../../../core/focus/star'
import type { Narrowing } from '../../../core/spend/question'
import { lateTags } from '../../../shared/contracts/spend'
import type { z } from 'zod'

/**
 * What one must know to read the total: what distorts it, what has no rate, from when a tag is reported. Each with its size and one action.
 */
type LateTags = z.infer<typeof lateTags>['late']
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
const MOST_LATE = 6
/** Who reports a tag only later, and since when; those of the same day together. */
function lateText(late: LateTags): string {
  const since = new Map<string, string[]>()
  for (const { source, firstDay, subAccounts, of } of late.slice(0, MOST_LATE)) {
    const when = firstDay ? `from ${dayText(firstDay)}` : 'not at all'
    since.set(when, [...(since.get(when) ?? []), `${source}${subAccounts < of ? ` (${subAccounts} of ${of} sub accounts)` : ''}`])
  }
  const more = late.length > MOST_LATE ? ` and ${late.length - MOST_LATE} more sources` : ''
  return [...since].map(([when, sources]) => `${sources.join(', ')} ${when}`).join('; ') + more
}
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
const tagsFrom = ref<{ key: string; late: LateTags }[]>([])

// missing is not the same as not yet reported: where the period begins before a tag was first seen, that is said
const keys = computed(() => [
  ...new Set([...(spend.shown?.splitBy ?? []), ...Object.keys(spend.shown?.keep ?? {})].flatMap(d => tagKey(d) ?? [])),
])
watch(
  () => [keys.value.join(), spend.shown] as const,
  () =>
    attempt(async () => {
      const asked = spend.shown
      if (!asked) return
      // conditions on the tag itself aside: whoever keeps a team wants to know what could not have it
      const without = (dimension: string, narrowing: Narrowing) =>
        Object.fromEntries(Object.entries(narrowing).filter(([d]) => d !== dimension))
      tagsFrom.value = (
        await Promise.all(
          keys.value.map(async key => {
            const { start, end, ends, keep, leaveOut, conditions } = spend.question()
            const scope = {
              start,
              end,
              ends,
              keep: without(`Tags/${key}`, keep ?? {}),
              leaveOut: without(`Tags/${key}`, leaveOut ?? {}),
              conditions,
            }
            return { key, late: (await client.send('POST', 'spend/tags/late', { key, ...scope }, lateTags)).late }
          }),
        )
      ).filter(({ late }) => late.length)
    }),
  { immediate: true },
)
</script>

<template>
  <div class="notes">
    <p v-if="spend.ignored.length" class="distortion" data-testid="ignored">
      {{
        spend.ignored
          .slice(0, 5)
          .map(part => `«${part}»`)
          .join(', ')
      }}{{ spend.ignored.length > 5 ? ` and ${spend.ignored.length - 5} more` : '' }} of the address could not be read and
      {{ spend.ignored.length === 1 ? 'was' : 'were' }} left out.
    </p>
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
      <NuxtLink to="/sources/rates" class="link">Add rates</NuxtLink>
    </p>
    <p v-for="tag in tagsFrom" :key="tag.key" class="distortion">
      The {{ tag.key }} tag was not yet reported for all of this: {{ lateText(tag.late) }}. What lacks it there is not missing but not yet
      reported.
    </p>
  </div>
</template>

<style scoped>
.distortion {
  color: var(--warn);
}
</style>
