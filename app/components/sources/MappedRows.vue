<script setup lang="ts">
import type { MappingPreview } from '../../../shared/contracts/mappings'

/** The first rows of a file as charges, beside how they stand in it, and what is wrong with them. */
const { preview } = defineProps<{ preview: MappingPreview }>()
/** Columns of charges that are looked at; those that the mapping says nothing of are left away. */
const LOOKED_AT = [
  ...['ChargePeriodStart', 'ChargePeriodEnd', 'BilledCost', 'BillingCurrency', 'ServiceName', 'SubAccountName', 'ChargeCategory'],
  ...['PricingQuantity', 'PricingUnit', 'ChargeDescription', 'Tags'],
]
const places = (column: string) => preview.columns.indexOf(column)
const previewed = computed(() => LOOKED_AT.filter(column => places(column) >= 0))
</script>

<template>
  <div class="result">
    <h4 class="minor">The first rows as charges</h4>
    <ul v-if="preview.problems.length" class="bad">
      <li v-for="(p, i) in preview.problems.slice(0, 6)" :key="i">
        <template v-if="p.row">row {{ p.row }}, </template>{{ p.column
        }}<template v-if="p.value"
          >, <code>{{ p.value }}</code></template
        >: {{ p.reason }}. {{ p.mend }}
      </li>
    </ul>
    <div class="scroll" tabindex="0" role="group" aria-label="first rows as charges">
      <table v-if="preview.columns.length" class="ledger small" data-testid="mapped">
        <thead>
          <tr>
            <th v-for="column in previewed" :key="column">{{ column }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in preview.rows" :key="i">
            <td v-if="row === null" :colspan="previewed.length" class="minor">left out: {{ preview.raw[i]?.join(' ') }}</td>
            <template v-else
              ><td v-for="column in previewed" :key="column">{{ row[places(column)] }}</td></template
            >
          </tr>
        </tbody>
      </table>
    </div>
    <h4 class="minor">As they stand in the file</h4>
    <div class="scroll" tabindex="0" role="group" aria-label="first rows of the file">
      <table class="ledger small">
        <thead>
          <tr>
            <th v-for="column in preview.header" :key="column">{{ column }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in preview.raw.slice(0, 5)" :key="i">
            <td v-for="(cell, c) in row" :key="c">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.result {
  min-width: 0;
}
.small td,
.small th {
  white-space: nowrap;
  font-size: 12px;
}
h4 {
  margin: 8px 0 2px;
  font-weight: 560;
}
</style>
