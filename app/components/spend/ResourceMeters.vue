<script setup lang="ts">
import type { ResourceView } from '../../../shared/contracts/resources'

/** What a resource is charged for: all that is loaded of each SKU, and how much of it lately. */
defineProps<{ meters: ResourceView['meters']; currency: string }>()
type Meter = ResourceView['meters'][number]
const LATELY = 31
const sum = (meter: Meter, what: 'quantity' | 'amount') => addTexts(meter.days.map(day => day[what]))
function unitPrice(meter: Meter): string {
  const used = Number(sum(meter, 'quantity'))
  return used ? fullPrice(roundText(divideText(sum(meter, 'amount'), used), 8)) : '–'
}
</script>

<template>
  <div>
    <h2 class="heading">Price parts, all that is loaded and the last {{ LATELY }} days with charges</h2>
    <div class="scroll" tabindex="0" role="group" aria-label="meters">
      <table class="ledger" data-testid="meters">
        <thead>
          <tr>
            <th>what is charged</th>
            <th class="n">quantity</th>
            <th class="n">unit price</th>
            <th class="n">cost</th>
            <th>quantity lately</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="meter in meters" :key="`${meter.skuId}${meter.unit}`">
            <td>
              {{ meter.words ?? meter.meter ?? 'without a SKU' }}<template v-if="meter.charged">, for {{ meter.charged }}</template
              ><br /><NuxtLink
                v-if="meter.skuId"
                class="link"
                :to="{ path: '/spend/of', query: { dimension: 'SkuId', value: meter.skuId } }"
                >{{ meter.skuId }}</NuxtLink
              >
            </td>
            <td class="n">{{ quantity(sum(meter, 'quantity')) }} {{ meter.unit ?? '' }}</td>
            <td class="n">{{ unitPrice(meter) }}</td>
            <td class="n">{{ money(sum(meter, 'amount'), currency) }}</td>
            <td><SparkLine :amounts="meter.days.slice(-LATELY).map(d => d.quantity)" /></td>
          </tr>
          <tr class="total">
            <td>Total</td>
            <td />
            <td />
            <td class="n">{{ money(addTexts(meters.map(meter => sum(meter, 'amount'))), currency) }}</td>
            <td />
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
</style>
