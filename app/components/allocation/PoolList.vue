<script setup lang="ts">
import type { Pool } from '../../../core/allocation/plan'
import { poolLabel } from '../../../core/allocation/pools'

/** Pools of shared cost: what rules put on them, how they are divided and among whom, who answers for them. */
const props = defineProps<{ currency: string }>()
const allocation = useAllocation()
const session = useSession()
const open = ref<string | null>(null)
const isKept = computed(() => allocation.closed !== null && !allocation.draft)
const amountOf = (id: string) => allocation.settled?.pools.find(one => one.pool === id && one.currency === props.currency)?.amount ?? '0'
const owner = (id: string | null | undefined) => session.people.find(one => one.id === id)?.name ?? id ?? '–'
const among = ({ among, method }: Pool) => {
  if (method === 'shares') return 'who is named'
  if (!among) return method === 'even' ? 'everyone' : 'those with a base'
  if (among.of === 'subtree') return `${allocation.targetName(among.centre)} and below`
  if (among.of === 'list') return among.centres.map(allocation.targetName).join(', ')
  return among.of === 'everyone' ? 'everyone' : 'those with cost of their own'
}
const add = async () => {
  open.value = await allocation.addPool()
}
</script>

<template>
  <section aria-label="Pools">
    <div class="headed">
      <h2 class="heading">Pools of shared cost</h2>
      <button v-if="!isKept" class="link" @click="add">Add a pool</button>
    </div>
    <p v-if="!allocation.plan!.pools.length" class="minor">
      None yet. A pool takes what rules put on it and divides it among cost centres: a network, a platform, support.
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>pool</th>
          <th>divided</th>
          <th>among</th>
          <th>owner</th>
          <th class="n">put on it, {{ currency }}</th>
          <th><span class="sr-only">change</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(pool, index) in allocation.plan!.pools" :key="pool.id">
          <tr>
            <td>{{ pool.name }}</td>
            <td>{{ poolLabel(pool) }}</td>
            <td class="minor">{{ among(pool) }}</td>
            <td class="minor">{{ owner(pool.owner) }}</td>
            <td class="n">{{ money(amountOf(pool.id), currency) }}</td>
            <td class="acts">
              <template v-if="!isKept">
                <button
                  v-if="allocation.plan!.serving === 'step-down'"
                  class="small"
                  :disabled="index === 0"
                  :aria-label="`settle ${pool.name} earlier`"
                  @click="allocation.movePool(pool.id, -1)"
                >
                  ↑
                </button>
                <button class="link" :aria-expanded="open === pool.id" @click="open = open === pool.id ? null : pool.id">Change</button>
              </template>
            </td>
          </tr>
          <tr v-if="open === pool.id && !isKept">
            <td colspan="6"><PoolEditor :pool="pool" :currency="currency" @close="open = null" /></td>
          </tr>
        </template>
      </tbody>
    </table>
    <PoolServing v-if="allocation.plan!.pools.length > 1" :currency="currency" :fixed="isKept" />
  </section>
</template>

<style scoped>
section {
  margin-top: 18px;
}
.ledger td {
  white-space: normal;
}
.acts {
  text-align: right;
  white-space: nowrap;
}
</style>
