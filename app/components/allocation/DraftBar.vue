<script setup lang="ts">
import type { AllocationQuestion } from '../../../shared/contracts/allocation'

/** What is changed and not saved: what it moves in every month, and what can be done with it. */
const { measure } = defineProps<{ measure: AllocationQuestion['measure'] }>()
const allocation = useAllocation()
const closings = useClosings()
const effects = useMonthEffects()
const lookAtMonths = () => (effects.left.value === null ? effects.look(toRaw(allocation.draft!), measure) : effects.stop())
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
    <button v-if="!allocation.planProblem" class="link" :aria-expanded="effects.left.value !== null" @click="lookAtMonths">
      {{ effects.left.value === null ? 'What moves in every month' : 'Hide what moves' }}
    </button>
    <LeaveClosed v-if="closings.closed.length" v-model="allocation.leavesClosed" />
    <button class="button main" :disabled="allocation.saving || !!allocation.planProblem" @click="allocation.save()">Save the rules</button>
    <button class="button" :disabled="!allocation.canUndo" @click="allocation.undo()">Undo</button>
    <button class="button" @click="allocation.discard()">Discard</button>
  </div>
  <ProblemNote v-if="allocation.planProblem" :problem="allocation.planProblem" />
  <ProblemNote v-if="allocation.saveProblem" :problem="allocation.saveProblem" />
  <ProblemNote v-if="effects.problem.value" :problem="effects.problem.value" />
  <MonthEffects
    v-if="allocation.draft && effects.left.value !== null"
    :effects="effects.effects.value"
    :left="effects.left.value"
    :centres="allocation.plan!.centres"
    :closings="effects.closings.value"
  />
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
