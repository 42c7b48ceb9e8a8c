<script setup lang="ts">
/** The figures of the chart as a table, for whoever does not see it. */
defineProps<{ said: (amount: string | null) => string }>()
const spend = useSpend()
const MOST_STARTS = 62
</script>

<template>
  <div class="sr-only">
    <table>
      <caption>
        The figures of the chart, in
        {{
          spend.currency
        }}
      </caption>
      <thead>
        <tr>
          <th>start</th>
          <th v-for="series in spend.series" :key="series.id">{{ series.label }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(start, i) in spend.starts.slice(0, MOST_STARTS)" :key="start">
          <th>{{ startText(start, spend.shown!.grain) }}</th>
          <td v-for="series in spend.series" :key="series.id">{{ said(series.amounts[i]!) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
