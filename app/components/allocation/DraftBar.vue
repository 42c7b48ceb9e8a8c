<script setup lang="ts">
import { namedTargets } from '../../../core/allocation/tree'
import type { AllocationQuestion } from '../../../shared/contracts/allocation'

/** What is changed and not saved: what it moves in every month, and what can be done with it. */
const { measure } = defineProps<{ measure: AllocationQuestion['measure'] }>()
const allocation = useAllocation()
const closings = useClosings()
const effects = reactive(useMonthEffects())
const lookAtMonths = () =>
  effects.left === null
    ? effects.look({ plan: toRaw(allocation.draft!) }, { measure, tree: allocation.treeId ?? undefined })
    : effects.stop()
// what was found of a draft is not of the next
watch(
  () => allocation.draft,
  () => effects.stop(),
)
</script>

<template>
  <div v-if="allocation.draft" class="draft" role="status">
    <b>Draft.</b>
    {{ allocation.planProblem ? 'Figures follow once the rules can be used' : 'Every figure shows what the changed rules would give' }};
    nothing is saved yet.
    <button v-if="!allocation.planProblem" class="link" :aria-expanded="effects.left !== null" @click="lookAtMonths">
      {{ effects.left === null ? 'What moves in every month' : 'Hide what moves' }}
    </button>
    <LeaveClosed v-if="closings.closed.length" v-model="allocation.leavesClosed" />
    <button class="button main" :disabled="allocation.saving || !!allocation.planProblem" @click="allocation.save()">Save the rules</button>
    <button class="button" :disabled="!allocation.canUndo" @click="allocation.undo()">Undo</button>
    <button class="button" @click="allocation.discard()">Discard</button>
  </div>
  <ProblemNote v-if="allocation.planProblem" :problem="allocation.planProblem" />
  <ProblemNote v-if="allocation.saveProblem" :problem="allocation.saveProblem" />
  <MonthEffects v-if="allocation.draft && effects.left !== null" :months="effects" :targets="namedTargets(allocation.plan!)" />
</template>

<style scoped>
.draft {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  background: var(--warn-soft);
  border-left: 3px solid var(--warn);
  padding: 6px 12px;
  border-radius: 3px;
  margin-bottom: 8px;
}
.draft .main {
  margin-left: auto;
}
</style>
