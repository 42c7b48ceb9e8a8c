<script setup lang="ts">
import { tagKey } from '../../../core/focus/star'
import { firstSeen } from '../../../shared/contracts/spend'

/**
 * What one must know to read the total: what distorts it, what has no rate, from when a tag is reported. Each with its size and one action.
 */
const spend = useSpend()
const actions = useSpendActions()
const { attempt } = useAttempt()
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
  <div v-if="spend.distortions.length || spend.unconverted.length || tagsFrom.length" class="notes">
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
