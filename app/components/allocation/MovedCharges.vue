<script setup lang="ts">
import { manyOf } from '../../../core/text/many-of'
import type { MovedCharges } from '../../../shared/contracts/allocation'

/** The charges of a month that something not saved puts elsewhere: from where to where, and which. */
const { moved, month, nameOf } = defineProps<{ moved: MovedCharges; month: string; nameOf: (target: string | null) => string }>()
/** What a line is called: its resource, else its service. */
const called = ({ values }: MovedCharges['charges'][number]) =>
  values.ResourceName ?? values.ResourceId ?? valueLabel('ServiceName', values.ServiceName ?? null)
const beside = ({ values }: MovedCharges['charges'][number]) =>
  [(values.ResourceName ?? values.ResourceId) ? values.ServiceName : null, values.SubAccountName].filter(Boolean).join(' · ')
</script>

<template>
  <section class="moved" :aria-label="`Charges that move in ${monthText(month)}`">
    <h3 class="heading">Charges that move in {{ monthText(month) }}</h3>
    <p v-if="!moved.ways.length" class="note">No charge moves: what each bears changes by shared cost alone, or not at all.</p>
    <template v-else>
      <p v-for="(way, i) in moved.ways" :key="i">
        <b>{{ money(way.amount, way.currency) }} {{ way.currency }}</b> in {{ count(way.count) }}
        {{ way.count === 1 ? 'charge line' : 'charge lines' }} from {{ nameOf(way.from) }} to {{ nameOf(way.to) }}
      </p>
      <div class="scroll list" tabindex="0" role="group" aria-label="charges that move">
        <table class="ledger" data-testid="moving">
          <thead>
            <tr>
              <th>charges of</th>
              <th>from</th>
              <th>to</th>
              <th class="n">lines</th>
              <th class="n">amount</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, i) in moved.charges" :key="i">
              <td>
                {{ called(line) }}<br /><span class="minor">{{ beside(line) }}</span>
              </td>
              <td>{{ nameOf(line.from) }}</td>
              <td>{{ nameOf(line.to) }}</td>
              <td class="n">{{ count(line.count) }}</td>
              <td class="n">{{ money(line.amount, line.currency) }} {{ line.currency }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="moved.more" class="minor">and {{ manyOf(moved.more, 'smaller one') }}</p>
    </template>
  </section>
</template>

<style scoped>
.moved {
  margin: 8px 0 12px;
}
.moved p {
  margin: 2px 0;
}
.list {
  max-height: 330px;
  overflow: auto;
}
</style>
