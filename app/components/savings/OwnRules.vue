<script setup lang="ts">
import type { OwnRuleInput, OwnRulePreview, OwnRuleView } from '../../../shared/contracts/savings-own'

/** Rules of one's own: a Sentence, and how much a resource has to cost in it to be found; with what one would find before it is saved. */
const own = useOwnRules()
const savings = useSavings()
const sentences = useSentences()
const { attempt, problem, busy } = useAttempt()
const isMaking = ref(false)
const chosen = ref('')
const name = ref('')
const above = ref('25')
const effect = ref<OwnRulePreview | null>(null)
onMounted(() =>
  attempt(async () => {
    await Promise.all([own.load(), sentences.load()])
  }),
)

/** Saved Sentences, and those that were asked lately. */
const choices = computed(() => [
  ...sentences.saved.map(({ id, name: title, body }) => ({ key: `saved ${id}`, title, query: body.query })),
  ...sentences.recent.map(({ title, query }, i) => ({ key: `asked ${i}`, title: `${title} (asked lately)`, query })),
])
const scope = ref<Pick<OwnRuleInput, 'keep' | 'leaveOut' | 'conditions'> | null>(null)
watch(chosen, async key => {
  scope.value = null
  const title = sentences.saved.find(({ id }) => key === `saved ${id}`)?.name
  if (title && !name.value) name.value = title
  const query = choices.value.find(one => one.key === key)?.query
  if (!query) return
  await attempt(async () => {
    const { sentence } = await sentenceOf(query)
    // another may have been chosen while a long one was read
    if (chosen.value !== key) return
    scope.value = { keep: keptWithSteps(sentence), leaveOut: sentence.leaveOut, conditions: sentence.conditions }
  })
})
const rule = computed((): OwnRuleInput | null => {
  const isWhole = scope.value && name.value.trim() && above.value.trim()
  return isWhole ? { name: name.value, ...scope.value!, above: above.value.trim(), currency: savings.currency } : null
})
watch(rule, () => (effect.value = null))
const show = () =>
  attempt(async () => {
    if (rule.value) effect.value = await own.preview(rule.value)
  })
const save = () =>
  attempt(async () => {
    await own.add(rule.value!)
    isMaking.value = false
    chosen.value = name.value = ''
    await savings.read()
  })
const remove = (id: string) =>
  attempt(async () => {
    await own.remove(id)
    await savings.read()
  })
const words = ({ keep, leaveOut, conditions }: OwnRuleView) => scopeText({ keep, leaveOut, conditions }) || 'all charges'
</script>

<template>
  <section aria-label="Your own rules" class="own">
    <h3 class="minor head">
      Your own rules
      <button class="link" :aria-expanded="isMaking" @click="isMaking = !isMaking">{{ isMaking ? 'cancel' : 'Make one' }}</button>
    </h3>
    <ProblemNote v-if="problem" :problem="problem" />
    <form v-if="isMaking" class="inset fields" @submit.prevent="effect ? save() : show()">
      <p v-if="!choices.length" class="warn">
        A rule looks at what a Sentence looks at: <NuxtLink class="link" to="/spend">say one under Spend</NuxtLink> first.
      </p>
      <label
        >what it looks at
        <select v-model="chosen" class="field" required>
          <option value="" disabled>a Sentence</option>
          <option v-for="one in choices" :key="one.key" :value="one.key">{{ one.title }}</option>
        </select></label
      >
      <label>called <input v-model="name" class="field" required maxlength="120" /></label>
      <label
        >finds a resource that costs at least
        <span><input v-model="above" class="field number" required inputmode="decimal" /> {{ savings.currency }} a month</span></label
      >
      <div v-if="effect" class="effect" role="status">
        <p>
          It finds <b>{{ count(effect.found) }}</b> {{ effect.found === 1 ? 'resource' : 'resources'
          }}<template v-if="effect.found"
            >, which cost <b>{{ money(effect.monthly, savings.currency) }}</b> {{ savings.currency }} a month: {{ effect.titles.join('; ')
            }}{{ effect.more ? ` and ${count(effect.more)} more` : '' }}</template
          >.
        </p>
      </div>
      <div class="row">
        <button class="button main" type="submit" :disabled="busy || !rule">{{ effect ? 'Save the rule' : 'See what it finds' }}</button>
        <button class="button" type="button" @click="isMaking = false">Cancel</button>
      </div>
    </form>
    <table v-if="own.rules.length" class="ledger">
      <thead>
        <tr>
          <th>rule</th>
          <th>looks at</th>
          <th class="n">finds from, a month</th>
          <th class="n">found</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in own.rules" :key="one.id">
          <td>
            {{ one.name }}<span class="minor line">by {{ one.who }}</span>
          </td>
          <td>{{ words(one) }}</td>
          <td class="n">{{ money(one.above, one.currency) }} {{ one.currency }}</td>
          <td class="n">
            <NuxtLink v-if="one.found" class="link" :to="{ path: '/savings', query: { kind: 'own-rule' } }">{{
              count(one.found)
            }}</NuxtLink><template v-else>none</template>
          </td>
          <td class="n">
            <button class="link" :aria-label="`Delete ${one.name}`" :disabled="busy" @click="remove(one.id)">Delete</button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="!isMaking" class="note">None yet: a rule finds whatever a Sentence looks at and costs enough.</p>
  </section>
</template>

<style scoped>
.own {
  margin: 14px 0;
}
.head {
  display: flex;
  gap: 14px;
}
.effect,
.row {
  flex-basis: 100%;
}
.row {
  display: flex;
  gap: 10px;
}
.line {
  display: block;
}
.number {
  width: 90px;
}
</style>
