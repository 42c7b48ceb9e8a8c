<script setup lang="ts">
import { statementMails, type StatementMails } from '../../../shared/contracts/statement-mails'

/** Whom the statements of a closed month are for, what became of their mails, and the sending: to each at most once. */
const props = defineProps<{ month: string }>()
const state = shallowRef<StatementMails | null>(null)
const { attempt, problem, busy } = useAttempt()
/** Of those of whom nobody knows whether they got it, who is to get it again. */
const again = ref<string[]>([])
const path = computed(() => `allocation/closings/${props.month}/mails`)
async function open() {
  if (state.value) return void (state.value = null)
  await attempt(async () => {
    state.value = await client.get(path.value, statementMails)
  })
}
watch(
  () => props.month,
  () => (state.value = null),
)
const toSend = computed(
  () =>
    state.value?.owners.filter(
      one =>
        one.mail !== null &&
        (one.state === null || one.state === 'failed' || (one.state === 'not known' && again.value.includes(one.person))),
    ) ?? [],
)
const send = () =>
  attempt(async () => {
    const wanted = new Set(toSend.value.map(({ person }) => person))
    state.value = await client.send('POST', path.value, { again: again.value }, statementMails)
    again.value = []
    // a mail takes a moment: what became of it is asked until each has ended
    for (let tries = 0; tries < 60 && state.value; tries++) {
      const under = state.value.owners.some(one => wanted.has(one.person) && (one.state === null || one.state === 'sending'))
      if (!under) break
      await new Promise(resolve => setTimeout(resolve, 500))
      state.value = await client.get(path.value, statementMails)
    }
  })
const words = ({ mail, state, said }: StatementMails['owners'][number]) => {
  if (state === null) return mail === null ? 'no address' : `to ${mail}`
  return state === 'sending' ? 'being sent' : state === 'not known' ? `not known: ${said}` : (said ?? state)
}
</script>

<template>
  <p class="minor">
    <button class="link" :aria-expanded="!!state" @click="open">Send statements to owners</button>
  </p>
  <ProblemNote v-if="problem" :problem="problem" />
  <div v-if="state" class="inset" role="group" aria-label="Statements by mail">
    <table class="ledger" data-testid="mails">
      <tbody>
        <tr v-for="one in state.owners" :key="one.person">
          <td>{{ one.name }}</td>
          <td class="minor">{{ one.centres.join(', ') }}</td>
          <td :class="{ good: one.state === 'sent', warn: one.state === 'failed' || one.state === 'not known' }">
            {{ words(one) }}
            <label v-if="one.state === 'not known'" class="again"
              ><input v-model="again" type="checkbox" :value="one.person" /> send again</label
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="!state.owners.length" class="note">No cost centre of this month has an owner.</p>
    <p class="buttons">
      <button class="button main" :disabled="busy || !toSend.length" @click="send">
        {{ toSend.length ? `Send to ${count(toSend.length)} ${toSend.length === 1 ? 'owner' : 'owners'}` : 'Nobody left to send to' }}
      </button>
      <span class="minor">Each owner gets their statement once, as a PDF.</span>
    </p>
  </div>
</template>

<style scoped>
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
}
.again {
  display: block;
}
</style>
