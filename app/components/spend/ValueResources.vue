<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'

/** Every resource under a value, with how much it used and what it cost, in one currency. */
const props = defineProps<{ resources: Answered; quantities: Answered; currency: string; total: string }>()
const resources = computed(() => props.resources.rows.filter(row => row.currency === props.currency))
const used = computed(() => new Map(props.quantities.rows.map(row => [row.values.ResourceId ?? null, row])))
function quantityOf({ values }: Answered['rows'][number]): string {
  const found = used.value.get(values.ResourceId ?? null)
  return found ? `${quantity(found.amount)} ${found.currency}` : '–'
}
// thousands of resources: only those in sight are there
const frame = useTemplateRef<HTMLElement>('frame')
const virtual = useVirtualizer(
  computed(() => ({ count: resources.value.length, getScrollElement: () => frame.value, estimateSize: () => 28, overscan: 10 })),
)
</script>

<template>
  <div ref="frame" class="frame" tabindex="0" role="group" aria-label="resources">
    <table class="ledger" data-testid="resources">
      <thead>
        <tr>
          <th>resource</th>
          <th>type</th>
          <th>sub account</th>
          <th>region</th>
          <th class="n">quantity</th>
          <th class="n">effective, {{ currency }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="virtual.getVirtualItems()[0]?.start" aria-hidden="true">
          <td colspan="6" :style="{ height: `${virtual.getVirtualItems()[0]!.start}px`, padding: 0 }" />
        </tr>
        <tr v-for="item in virtual.getVirtualItems()" :key="item.index" class="acts">
          <template v-for="row in [resources[item.index]!]" :key="String(row.values.ResourceId)">
            <td>
              <NuxtLink v-if="row.values.ResourceId" class="link" :to="{ path: '/spend/resource', query: { id: row.values.ResourceId } }">{{
                row.values.ResourceName ?? row.values.ResourceId
              }}</NuxtLink><i v-else>no resource</i>
            </td>
            <td>{{ row.values.ResourceType }}</td>
            <td>{{ row.values.SubAccountName }}</td>
            <td>{{ row.values.RegionId }}</td>
            <td class="n">
              {{ quantityOf(row) }}
            </td>
            <td class="n">{{ money(row.amount, currency) }}</td>
          </template>
        </tr>
        <tr aria-hidden="true">
          <td
            colspan="6"
            :style="{
              height: `${Math.max(0, virtual.getTotalSize() - (virtual.getVirtualItems().at(-1)?.end ?? 0))}px`,
              padding: 0,
              border: 0,
            }"
          />
        </tr>
      </tbody>
      <tfoot>
        <tr class="total">
          <td colspan="5">Total of {{ count(resources.length) }}</td>
          <td class="n">{{ money(total, currency) }}</td>
        </tr>
      </tfoot>
    </table>
  </div>
</template>

<style scoped>
.frame {
  max-height: 480px;
  overflow: auto;
  position: relative;
}
.frame thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 1;
}
.frame tfoot td {
  position: sticky;
  bottom: 0;
  z-index: 1;
}
</style>
