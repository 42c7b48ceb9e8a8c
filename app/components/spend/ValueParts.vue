<script setup lang="ts">
/** What a value's cost is made of: by sub account, by SKU, and at which unit prices. */
const { currency } = defineProps<{
  accounts: Answered
  meters: Answered
  prices: { unit: string; rows: Answered['rows'] } | null
  currency: string
  total: string
  isSku: boolean
}>()
/** SKUs that have a line of their own. */
const MOST = 14
const skus = useSkuWords()
const own = ({ rows }: Answered) => rows.filter(row => row.currency === currency)
</script>

<template>
  <div>
    <h2 class="heading first">By sub account</h2>
    <table class="ledger">
      <tbody>
        <tr v-for="row in own(accounts)" :key="String(row.values.SubAccountName)">
          <td>{{ row.values.SubAccountName ?? 'no sub account' }}</td>
          <td class="n">{{ money(row.amount, currency) }}</td>
          <td class="n">{{ percent(row.amount, total) }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="!isSku"
      ><h2 class="heading">By SKU</h2>
      <table class="ledger">
        <tbody>
          <tr v-for="row in own(meters).slice(0, MOST)" :key="`${row.values.SkuId}${row.values.SkuMeter}`">
            <td>
              <NuxtLink
                v-if="row.values.SkuId"
                class="link"
                :title="row.values.SkuId"
                :to="{ path: '/spend/of', query: { dimension: 'SkuId', value: row.values.SkuId } }"
                >{{ skus.words[row.values.SkuId]?.words ?? row.values.SkuMeter ?? row.values.SkuId }}</NuxtLink><i v-else>no SKU</i>
            </td>
            <td class="n">{{ money(row.amount, currency) }}</td>
          </tr>
          <tr v-if="own(meters).length > MOST">
            <td>the other {{ own(meters).length - MOST }}</td>
            <td class="n">
              {{
                money(
                  addTexts(
                    own(meters)
                      .slice(MOST)
                      .map(row => row.amount),
                  ),
                  currency,
                )
              }}
            </td>
          </tr>
        </tbody>
      </table></template
    >
    <template v-if="prices?.rows.length"
      ><h2 class="heading">Unit price by month, {{ prices.unit }}</h2>
      <table class="ledger">
        <tbody>
          <tr v-for="row in prices.rows" :key="String(row.start)">
            <td>{{ monthText(row.start!) }}</td>
            <td class="n">{{ fullPrice(roundText(row.amount, 8)) }}</td>
          </tr>
        </tbody>
      </table></template
    >
  </div>
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
.heading.first {
  margin: 0;
}
</style>
