<script setup lang="ts">
import { addDays } from '../../../core/time/day'
import { deeds } from '../../../core/opportunity/deeds'
import { workText } from '../../utils/savings-list'
import type { OpportunityView } from '../../../shared/contracts/savings'

const props = defineProps<{ opportunity: OpportunityView }>()
const savings = useSavings()
const session = useSession()
const isUndoing = ref(false)
async function undo() {
  await savings.undo()
  isUndoing.value = false
}
/** What came of an action that is not done, and what to do. */
const trouble = computed(() => {
  const { action, canDo } = props.opportunity
  if (!canDo) return null
  if (action?.state === 'failed') return { head: 'Not done.', todo: 'Everything is as it was; try again when you like.' }
  if (action?.state === 'lapsed')
    return { head: 'The approval has lapsed.', todo: `It was left alone; approve it anew if it still is to be ${deeds[canDo.deed].past}.` }
  if (action?.state === 'waiting')
    return {
      head: 'It waits for a second person.',
      todo: `${action.approvedBy} has approved it: somebody else looks at it and approves it too.`,
    }
  if (action?.state === 'approved' && !savings.acting)
    return { head: 'Approved, and not begun.', todo: 'Nothing was sent: approve it once more to go on.' }
  if (action?.state === 'not known' || (action?.state === 'sent' && !savings.acting))
    return { head: 'Nobody knows whether it was done.', todo: 'Nothing is sent again before the cloud says what became of it: ask again.' }
  return null
})
/** What is not counted here since others count it, and what falls away from it. */
const overlap = computed(() => savings.state?.whole.notCounted.find(({ id }) => id === props.opportunity.id) ?? null)
const others = computed(() => (overlap.value?.instead ?? []).flatMap(id => savings.state?.opportunities.find(one => one.id === id) ?? []))
const isOver = computed(() => ['done', 'measured'].includes(props.opportunity.state))
const rests = computed(() => (props.opportunity.confidence === 'measured' ? 'measured' : 'from the bill'))
</script>

<template>
  <aside class="margin" :aria-label="opportunity.title">
    <div class="top">
      <h2 class="heading">{{ opportunity.title }}</h2>
      <button class="link close" @click="savings.choose(null)">close</button>
    </div>
    <p class="minor">{{ opportunity.resourceId }} · {{ opportunity.subAccountName }} · {{ opportunity.region }}</p>
    <p class="minor">
      owner {{ opportunity.owner ?? 'nobody' }}<template v-if="opportunity.centre"> ({{ opportunity.centre }})</template> · {{ rests }},
      {{ dayText(opportunity.evidence.from) }} to {{ dayText(addDays(opportunity.evidence.to, -1)) }} · risk: {{ opportunity.risk }}
    </p>
    <p class="sum">
      <b>{{ money(opportunity.monthlySaving, opportunity.currency) }} {{ opportunity.currency }}</b> a month ·
      {{ money(opportunity.firstYear, opportunity.currency) }} in the first year<template v-if="opportunity.oneOff"
        >, after {{ money(opportunity.oneOff.amount, opportunity.currency) }} once</template
      >
      · {{ workText(opportunity.minutesOfWork) }} of work
    </p>
    <p v-if="overlap" class="warn">
      {{ money(overlap.amount, savings.currency) }} {{ savings.currency }} of it is not counted: it is saved by
      <template v-for="(other, i) in others" :key="other.id"
        ><template v-if="i">, </template><button class="link" @click="savings.choose(other.id)">{{ other.title }}</button></template
      >.
    </p>
    <p v-if="opportunity.cameBack" class="bad">It was done on {{ dayText(opportunity.decision!.doneOn!) }}, and is found on days since.</p>
    <p v-if="opportunity.decision?.state" class="note">
      {{ capitalised(opportunity.decision.state) }} by {{ opportunity.decision.who }}, {{ timeText(opportunity.decision.at)
      }}<template v-if="opportunity.decision.reason">: {{ opportunity.decision.reason }}</template
      ><template v-if="opportunity.decision.lookAgain">; to be looked at again on {{ dayText(opportunity.decision.lookAgain) }}</template>
    </p>
    <template v-for="series in opportunity.evidence.series" :key="series.label">
      <h3 class="minor">
        {{ capitalised(series.label) }}<template v-if="series.days.length">, {{ series.days.length }} days</template>
      </h3>
      <SeriesPicture :series="series" />
    </template>
    <h3 class="minor">Workings</h3>
    <WorkingsTree :working="opportunity.working" :currency="opportunity.currency" />
    <template v-if="opportunity.oneOff">
      <h3 class="minor">Once</h3>
      <WorkingsTree :working="opportunity.oneOff.working" :currency="opportunity.currency" />
    </template>
    <div v-if="trouble" class="failed" role="alert">
      <b>{{ trouble.head }}</b> {{ capitalised(opportunity.action!.steps.at(-1)!.outcome) }}. {{ trouble.todo }}
    </div>
    <template v-if="opportunity.byHand && !isOver">
      <h3 class="minor">What to do</h3>
      <ol>
        <li v-for="step in opportunity.byHand.steps" :key="step">{{ step }}</li>
      </ol>
      <p class="minor">{{ opportunity.byHand.undo }}</p>
    </template>
    <template v-if="opportunity.canDo && !isOver">
      <div v-if="savings.preview" class="preview">
        <h3 class="minor">What would be done</h3>
        <ol>
          <li v-for="step in savings.preview.steps" :key="step">{{ step }}</li>
        </ol>
        <p class="warn">{{ savings.preview.undo }}</p>
        <p v-if="savings.preview.why" class="bad">It would be left alone: {{ savings.preview.why }}.</p>
        <div class="acts">
          <button class="button main" :disabled="savings.acting || !!savings.preview.why" @click="savings.approve()">
            {{
              savings.acting ? `${capitalised(deeds[opportunity.canDo.deed].now)}…` : `Approve and ${opportunity.canDo.deed}`
            }}</button><button class="button" :disabled="savings.acting" @click="savings.preview = null">Cancel</button>
        </div>
      </div>
      <div v-else class="acts"><button class="button main" @click="savings.showPreview()">Preview</button></div>
    </template>
    <template v-if="opportunity.action?.undo && session.seesAll">
      <div v-if="isUndoing" class="preview" role="group" aria-label="undo it">
        <p>
          It would {{ opportunity.action.undo }}, after a look whether it still is as it was made. What it has saved until then stays in the
          ledger.
        </p>
        <div class="acts">
          <button class="button main" :disabled="savings.acting" @click="undo">{{ savings.acting ? 'Undoing…' : 'Undo it' }}</button><button
            class="button"
            :disabled="savings.acting"
            @click="isUndoing = false"
          >
            Cancel
          </button>
        </div>
      </div>
      <div v-else class="acts"><button class="button" @click="isUndoing = true">Undo…</button></div>
    </template>
    <h3 class="minor">Decide</h3>
    <DecisionBar :rows="[opportunity]" />
    <ul v-if="opportunity.decision?.notes.length" class="log" aria-label="notes">
      <li v-for="note in opportunity.decision.notes" :key="note.at">
        <span class="minor">{{ timeText(note.at) }}, {{ note.who }}</span
        ><br />{{ note.text }}
      </li>
    </ul>
    <template v-if="opportunity.action">
      <h3 class="minor">Steps taken</h3>
      <ul class="log">
        <li v-for="(step, i) in opportunity.action.steps" :key="i">
          <span class="minor">{{ timeText(step.at) }}, {{ step.who }}</span
          ><br />{{ step.what }}: {{ step.outcome }}
        </li>
      </ul>
    </template>
  </aside>
</template>

<style scoped>
.close {
  flex: none;
}
.margin {
  border-left: 1px solid var(--line-strong);
  padding-left: 18px;
  min-width: 0;
  overflow-wrap: anywhere;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
h3 {
  margin: 12px 0 3px;
  font-weight: 560;
}
ol {
  padding-left: 18px;
  list-style: decimal;
  margin-bottom: 6px;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
.failed {
  background: var(--bad-soft);
  border-left: 3px solid var(--bad);
  padding: 6px 10px;
  margin-top: 10px;
  border-radius: 3px;
}
.sum {
  margin: 6px 0;
}
.log li {
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
</style>
