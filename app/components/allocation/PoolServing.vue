<script setup lang="ts">
import { comparedMethods } from '../../../core/allocation/method-comparison'
import { allocationPlanSchema, servingMethods, type ServingMethod } from '../../../core/allocation/plan'
import { settlement, type Settlement } from '../../../shared/contracts/allocation'

/** How pools that serve each other are settled, and what each cost centre would bear by each method. */
const props = defineProps<{ currency: string; fixed: boolean }>()
const allocation = useAllocation()
const { attempt, problem, busy } = useAttempt()
const words: Record<ServingMethod | 'none', string> = {
  none: 'none serves another back',
  direct: 'direct: pools bear nothing of each other',
  'step-down': 'step-down: one after the other, in the order of the list',
  reciprocal: 'reciprocal: all at once',
}
const chosen = computed(() => allocation.plan!.serving ?? 'none')
const compared = shallowRef<Record<ServingMethod, Settlement | null> | null>(null)
watch(
  () => [allocation.plan, allocation.question],
  () => {
    compared.value = null
  },
)

/** Settles the month by each method; one by which the pools cannot be settled stays empty. */
const compare = () =>
  attempt(async () => {
    const tree = toRaw(allocation.plan!)
    const by = async (serving: ServingMethod) => {
      const own = allocation.planWith({ ...tree, serving })
      if (!allocationPlanSchema.safeParse(own).success) return null
      return client.send('POST', 'allocation/preview', { plan: own, ...allocation.question!, uplifts: 'none' }, settlement)
    }
    const found: Record<ServingMethod, Settlement | null> = { direct: null, 'step-down': null, reciprocal: null }
    for (const serving of servingMethods) found[serving] = await by(serving)
    compared.value = found
  })
const rows = computed(() => (compared.value ? comparedMethods(allocation.plan!, compared.value, props.currency) : []))
</script>

<template>
  <div class="serving">
    <label
      >Pools that serve each other are settled
      <select
        class="field"
        :value="chosen"
        :disabled="fixed"
        @change="
          allocation.setServing(
            ($event.target as HTMLSelectElement).value === 'none'
              ? undefined
              : (($event.target as HTMLSelectElement).value as ServingMethod),
          )
        "
      >
        <option v-for="(text, value) in words" :key="value" :value="value">{{ text }}</option>
      </select></label
    >
    <button v-if="!fixed" class="link" :disabled="busy" :aria-expanded="!!compared" @click="compared ? (compared = null) : compare()">
      {{ compared ? 'Hide the comparison' : 'Compare the methods' }}
    </button>
    <ProblemNote v-if="problem" :problem="problem" />
    <table v-if="compared" class="ledger" data-testid="methods">
      <thead>
        <tr>
          <th>shared cost of {{ monthText(allocation.question!.month) }}</th>
          <th v-for="method in servingMethods" :key="method" class="n" :class="{ used: method === chosen }">{{ method }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.centre">
          <td>{{ allocation.targetName(row.centre) }}</td>
          <td v-for="method in servingMethods" :key="method" class="n">
            {{ row.byMethod[method] === null ? '–' : money(row.byMethod[method]!, currency) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="compared && servingMethods.some(method => !compared![method])" class="minor">
      A dash: by that method a pool would be shared out to pools only.
    </p>
  </div>
</template>

<style scoped>
.serving {
  margin-top: 8px;
  color: var(--ink-2);
}
.serving .link {
  margin-left: 12px;
}
.used {
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
