<script setup lang="ts">
import type { FinderView, ThresholdsPreview, ThresholdsSet } from '../../../shared/contracts/savings'

/** The ways to find savings: what each has found, what it lacks, and the thresholds it goes by, changed with what that would find. */
const savings = useSavings()
const session = useSession()
const isOpen = ref(false)
/** Thresholds as they are being changed, by detector and key; a scope is the company (empty) or a sub account. */
const edited = ref<ThresholdsSet['thresholds'] | null>(null)
const effect = ref<ThresholdsPreview | null>(null)
const subAccount = ref('')
const finders = computed(() => savings.state?.finders ?? [])
const accounts = computed(() => [...new Set((savings.state?.opportunities ?? []).map(one => one.subAccountName))].sort())

const setNow = (list: readonly FinderView[]): ThresholdsSet['thresholds'] =>
  list.flatMap(({ detector, thresholds }) =>
    thresholds.flatMap(({ key, value, usual, bySubAccount }) => [
      ...(value === usual ? [] : [{ detector, key, subAccount: '', value }]),
      ...Object.entries(bySubAccount).map(([account, own]) => ({ detector, key, subAccount: account, value: own })),
    ]),
  )
const all = computed(() => edited.value ?? setNow(finders.value))
const valueOf = (detector: string, threshold: FinderView['thresholds'][number]) => {
  const at = (account: string) =>
    all.value.find(one => one.detector === detector && one.key === threshold.key && one.subAccount === account)
  return at(subAccount.value)?.value ?? at('')?.value ?? threshold.usual
}
function change(detector: string, threshold: FinderView['thresholds'][number], event: Event) {
  const value = Number((event.target as HTMLInputElement).value)
  const { key, usual } = threshold
  const others = all.value.filter(one => !(one.detector === detector && one.key === key && one.subAccount === subAccount.value))
  // for the company the usual need not be said; a sub account may go back to it
  edited.value = subAccount.value === '' && value === usual ? others : [...others, { detector, key, subAccount: subAccount.value, value }]
  void show()
}
async function show() {
  effect.value = await savings.tryThresholds({ thresholds: all.value })
}
function limit(event: Event) {
  const { value } = event.target as HTMLInputElement
  void savings.setApprovalLimit(value === '' ? null : value)
}
async function save() {
  if (!(await savings.setThresholds({ thresholds: all.value }))) return
  edited.value = null
  effect.value = null
}
function leave() {
  edited.value = null
  effect.value = null
}
const restsOn = { bill: 'the bill', measured: 'the bill and measurements', connection: 'measurements' } as const
const coverageWords = ({ measured, unmeasured, dearest }: NonNullable<FinderView['coverage']>) =>
  unmeasured
    ? `${count(measured)} measured, ${count(unmeasured)} not: ${dearest.join(', ')}${unmeasured > dearest.length ? ' …' : ''}`
    : `all ${count(measured)} measured`
const changed = computed(() => effect.value?.found.filter(({ now, then }) => now !== then) ?? [])
</script>

<template>
  <section aria-label="Ways to find savings" class="finders">
    <button class="link" :aria-expanded="isOpen" @click="isOpen = !isOpen">
      {{ isOpen ? '▾' : '▸' }} How savings are found: {{ finders.filter(({ lacks }) => !lacks).length }} of {{ finders.length }} ways have
      what they need
    </button>
    <template v-if="isOpen">
      <label v-if="session.seesAll" class="minor scope">
        thresholds of
        <select v-model="subAccount" class="field">
          <option value="">the company</option>
          <option v-for="account in accounts" :key="account" :value="account">{{ account }}</option>
        </select>
      </label>
      <table class="ledger">
        <thead>
          <tr>
            <th>way</th>
            <th>rests on</th>
            <th class="n">found</th>
            <th>goes by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="finder in finders" :key="finder.detector">
            <td>{{ finder.label }}</td>
            <td>{{ restsOn[finder.from] }}</td>
            <td class="n">{{ count(finder.found) }}</td>
            <td>
              <span v-if="finder.lacks" class="warn">{{ finder.lacks }}</span>
              <template v-else>
                <label v-for="threshold in finder.thresholds" :key="threshold.key" class="threshold">
                  {{ threshold.label }}
                  <select
                    v-if="threshold.options"
                    class="field"
                    :value="valueOf(finder.detector, threshold)"
                    :disabled="!session.seesAll"
                    @change="change(finder.detector, threshold, $event)"
                  >
                    <option v-for="option in threshold.options" :key="option" :value="option">{{ option }}</option>
                  </select>
                  <input
                    v-else
                    class="field number"
                    type="number"
                    step="any"
                    :min="threshold.least"
                    :max="threshold.most"
                    :value="valueOf(finder.detector, threshold)"
                    :disabled="!session.seesAll"
                    @change="change(finder.detector, threshold, $event)"
                  />
                  {{ threshold.unit }}
                </label>
                <span v-if="finder.goesBy" class="minor">{{ finder.goesBy }}</span>
                <p v-if="finder.coverage && (finder.coverage.measured || finder.coverage.unmeasured)" class="minor">
                  {{ coverageWords(finder.coverage) }}
                </p>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="session.seesAll" class="minor">
        A resource without an owner saves nothing, but nobody can be asked about it:
        <NuxtLink class="link" to="/spend/tags">Tags</NuxtLink> shows which have none and what they cost,
        <NuxtLink class="link" to="/savings/orders">a standing order</NuxtLink> finds out who made them. Licences of your own are compared
        under <NuxtLink class="link" to="/savings/otherwise">Otherwise</NuxtLink>.
      </p>
      <OwnRules v-if="session.seesAll" />
      <label v-if="session.seesAll" class="minor scope">
        a second person approves what saves more than
        <input
          class="field number"
          type="number"
          min="0"
          step="any"
          placeholder="nobody"
          :value="savings.state?.secondPersonAbove ?? ''"
          @change="limit($event)"
        />
        {{ savings.currency }} a month together
      </label>
      <div v-if="edited" class="review" role="group" aria-label="other thresholds">
        <template v-if="effect">
          <p>
            With these, bill and measurements would yield <b>{{ money(effect.then, effect.currency ?? 'EUR') }}</b> a month instead of
            {{ money(effect.now, effect.currency ?? 'EUR') }} {{ effect.currency }}{{ changed.length ? ':' : '; as much is found.' }}
          </p>
          <ul>
            <li v-for="one in changed" :key="one.detector">{{ one.label }}: {{ count(one.then) }} instead of {{ count(one.now) }}</li>
          </ul>
          <p v-if="effect.comes.length" class="minor">
            Comes: {{ effect.comes.slice(0, 5).join('; ') }}{{ effect.comes.length > 5 ? ` and ${effect.comes.length - 5} more` : '' }}.
          </p>
          <p v-if="effect.goes.length" class="minor">
            Goes: {{ effect.goes.slice(0, 5).join('; ') }}{{ effect.goes.length > 5 ? ` and ${effect.goes.length - 5} more` : '' }}.
          </p>
        </template>
        <div class="acts">
          <button class="button main" :disabled="!effect" @click="save">Save the thresholds</button>
          <button class="button" @click="leave">Discard</button>
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped>
.finders {
  margin-top: 18px;
}
.scope {
  margin: 4px 0 6px;
  display: block;
}
.threshold {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  margin-right: 16px;
}
.number {
  width: 84px;
}
</style>
