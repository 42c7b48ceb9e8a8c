<script setup lang="ts">
import type { OpportunityView, SavingsDecision } from '../../../shared/contracts/savings'

/** What one decides about opportunities: agreed, under way, done, set aside until a day; a day by which, and a note. */
const { rows } = defineProps<{ rows: readonly OpportunityView[] }>()
const savings = useSavings()
const asking = ref<'set aside' | 'done' | 'note' | null>(null)
const words = ref('')
const day = ref('')
const kept = ref('')
const ids = computed(() => rows.map(({ id }) => id))
const one = computed(() => (rows.length === 1 ? rows[0]! : null))
watch(ids, () => {
  asking.value = null
  kept.value = ''
})
function ask(what: typeof asking.value) {
  asking.value = asking.value === what ? null : what
  words.value = ''
  day.value = what === 'done' ? new Date().toISOString().slice(0, 10) : ''
}
async function decide(decision: Omit<SavingsDecision, 'ids'>, said: string) {
  kept.value = ''
  if (!(await savings.decide({ ids: ids.value, ...decision }))) return
  asking.value = null
  kept.value = said
}
const keep = () => {
  if (asking.value === 'set aside') return decide({ state: 'set aside', reason: words.value, lookAgain: day.value || null }, 'Set aside.')
  if (asking.value === 'done') return decide({ state: 'done', doneOn: day.value }, 'Done; the bill will show it.')
  return decide({ note: words.value }, 'Noted.')
}
const moveDue = (event: Event) => {
  const due = (event.target as HTMLInputElement).value || null
  return decide({ due }, due ? 'The day is set.' : 'No day is set any more.')
}
const isDecided = computed(() => rows.some(({ decision }) => decision?.state))
</script>

<template>
  <div class="decide" role="group" aria-label="decide">
    <div class="row">
      <button class="button" @click="decide({ state: 'agreed' }, 'Agreed.')">Agree</button>
      <button class="button" @click="decide({ state: 'under way' }, 'Under way.')">Under way</button>
      <button class="button" :aria-expanded="asking === 'done'" @click="ask('done')">Done…</button>
      <button class="button" :aria-expanded="asking === 'set aside'" @click="ask('set aside')">Set aside…</button>
      <button class="button" :aria-expanded="asking === 'note'" @click="ask('note')">Note…</button>
      <button v-if="isDecided" class="link" @click="decide({ state: 'spotted' }, 'Undone.')">Undo</button>
      <label class="minor"> due <input class="field" type="date" :value="one?.decision?.due ?? ''" @change="moveDue" /> </label>
    </div>
    <form v-if="asking" class="inset" @submit.prevent="keep">
      <label v-if="asking !== 'done'">
        {{ asking === 'note' ? 'Note' : 'Reason' }}
        <textarea v-model="words" class="field" rows="2" required maxlength="2000" />
      </label>
      <label v-if="asking !== 'note'">
        {{ asking === 'done' ? 'Done since' : 'Review on' }}
        <input v-model="day" class="field" type="date" :required="asking === 'done'" />
      </label>
      <div class="row">
        <button class="button main" type="submit">
          {{ asking === 'note' ? 'Save the note' : asking === 'done' ? 'It is done' : 'Set aside' }}
        </button>
        <button class="button" type="button" @click="asking = null">Cancel</button>
      </div>
    </form>
    <span class="minor" role="status">{{ kept }}</span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
textarea {
  display: block;
  width: 100%;
}
.inset {
  margin-top: 8px;
}
</style>
