<script setup lang="ts">
import { sharedSavings, type AnswerToList, type AnsweredItem, type SharedSavings } from '../../../shared/contracts/savings-lists'
import { workText } from '../../utils/savings-list'

/** A list of savings as its owner opens it by link: each entry is agreed to, or refused with a reason. */
const route = useRoute()
const path = computed(() => `shared-savings/${encodeURIComponent(String(route.params.secret))}`)
const shown = shallowRef<SharedSavings | null>(null)
const problem = ref<ReturnType<typeof problemOf> | null>(null)
const refusing = ref<string | null>(null)
const reason = ref('')
useHead({
  title: 'What could be saved · Rain Barrel',
  meta: [
    { name: 'robots', content: 'noindex' },
    { name: 'referrer', content: 'no-referrer' },
  ],
})
async function attempt(work: () => Promise<SharedSavings>) {
  try {
    shown.value = await work()
    problem.value = null
  } catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(() => attempt(() => client.get(path.value, sharedSavings)))
async function answer(asked: AnswerToList) {
  await attempt(() => client.send('POST', `${path.value}/answers`, asked, sharedSavings))
  if (!problem.value) refusing.value = null
}
function refuse({ id, answered }: AnsweredItem) {
  refusing.value = id
  reason.value = answered?.reason ?? ''
}
const left = computed(() => shown.value?.items.filter(({ answered }) => !answered).length ?? 0)
</script>

<template>
  <article class="paper">
    <p class="mast"><BrandMark /> <span>Rain Barrel</span></p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!shown && !problem" class="note" role="status">Reading…</p>
    <template v-if="shown">
      <h1>What could be saved, for {{ shown.person }}</h1>
      <p class="minor">
        from {{ shown.madeBy }}, {{ timeText(shown.madeAt) }} · open until {{ dayText(shown.expiresOn) }} ·
        {{ shown.saves.map(one => `${money(one.amount, one.currency)} ${one.currency}`).join(' and ') }} a month in all
      </p>
      <p v-if="shown.message" class="message">{{ shown.message }}</p>
      <p class="note" role="status">
        {{
          left
            ? `${count(left)} of ${count(shown.items.length)} ${left === 1 ? 'waits' : 'wait'} for your answer.`
            : 'Everything is answered. Thank you.'
        }}
      </p>
      <section v-for="item in shown.items" :key="item.id" :aria-label="item.title" class="item">
        <div class="headed">
          <h2 class="heading">{{ item.title }}</h2>
          <b>{{ money(item.monthlySaving, item.currency) }} {{ item.currency }} a month</b>
        </div>
        <p class="minor">
          {{ item.service }} · {{ item.subAccountName }} · {{ item.region }} · {{ workText(item.minutesOfWork) }} of work · risk:
          {{ item.risk }}<template v-if="item.oneOff"> · {{ money(item.oneOff, item.currency) }} once</template>
        </p>
        <p v-for="text in item.said" :key="text">{{ text }}</p>
        <details>
          <summary class="link">What would be done</summary>
          <ol>
            <li v-for="step in item.steps" :key="step">{{ step }}</li>
          </ol>
          <p class="minor">{{ item.undo }}</p>
        </details>
        <p v-if="item.answered" :class="item.answered.answer === 'agreed' ? 'good' : 'bad'">
          You {{ item.answered.answer === 'agreed' ? 'agreed' : 'refused'
          }}<template v-if="item.answered.reason">: {{ item.answered.reason }}</template>
        </p>
        <div class="acts">
          <button class="button main" :disabled="item.answered?.answer === 'agreed'" @click="answer({ id: item.id, answer: 'agreed' })">
            Agree
          </button>
          <button class="button" :aria-expanded="refusing === item.id" @click="refuse(item)">Refuse…</button>
        </div>
        <form v-if="refusing === item.id" class="inset" @submit.prevent="answer({ id: item.id, answer: 'refused', reason })">
          <label>
            Reason
            <textarea v-model="reason" class="field" rows="2" required maxlength="2000" />
          </label>
          <div class="acts">
            <button class="button main" type="submit">Refuse it</button>
            <button class="button" type="button" @click="refusing = null">Cancel</button>
          </div>
        </form>
      </section>
    </template>
  </article>
</template>

<style scoped>
.paper {
  max-width: 760px;
  margin: 0 auto;
  padding: 26px 24px 60px;
}
.mast {
  display: flex;
  gap: 8px;
  align-items: center;
  font: 600 16px var(--serif);
  margin-bottom: 18px;
}
h1 {
  font: 600 24px/1.3 var(--serif);
}
.message {
  border-left: 3px solid var(--act);
  padding: 4px 12px;
  margin: 10px 0;
  white-space: pre-line;
}
.item {
  border-top: 1px solid var(--line-strong);
  padding: 12px 0;
  margin-top: 12px;
}
.item p {
  margin: 4px 0;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
ol {
  list-style: decimal;
  padding-left: 20px;
}
form {
  margin-top: 8px;
}
textarea {
  display: block;
  width: 100%;
}
</style>
