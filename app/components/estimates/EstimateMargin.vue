<script setup lang="ts">
import { parseDecimal } from '../../../core/money/decimal'

/** Beside the sheet: the target, what is likely missing, what nobody has confirmed. */
const store = useEstimate()
const estimate = computed(() => store.estimate!)
const currency = computed(() => store.priced!.currency)
const monthly = computed(() => store.priced!.totals.effectiveMonthly)
const target = computed(() => estimate.value.target)
const share = computed(() => target.value && Number(target.value) > 0 ? Number(monthly.value) / Number(target.value) : null)
const gap = computed(() => target.value ? roundText(subtractTexts(monthly.value, target.value)) : '0')
const reasons = reactive<Record<string, string>>({})
const dismissing = ref<string | null>(null)
const targetProblem = ref('')
const termProblems = reactive<Record<string, string>>({})

function setTarget(text: string) {
  const value = text.trim()
  const number = parseDecimal(value)
  targetProblem.value = value !== '' && (!number || number.lt(0)) ? 'Write an amount, such as 500.' : ''
  if (!targetProblem.value) store.change((e) => {
    e.target = value === '' ? null : value
  })
}
function setTerm(name: 'discountPercent' | 'taxPercent', text: string) {
  const number = parseDecimal(text.trim())
  termProblems[name] = !number || number.lt(0) || number.gt(100) ? 'A percentage from 0 to 100.' : ''
  if (!termProblems[name]) store.change((e) => {
    e[name] = text.trim()
  })
}
function dismiss(spot: string) {
  const reason = (reasons[spot] ?? '').trim()
  if (!reason) return
  store.dismiss(spot, reason)
  dismissing.value = null
}
const restore = (spot: string) => store.change((e) => {
  e.dismissed = e.dismissed.filter(d => d.blindSpot !== spot)
})
</script>

<template>
  <aside class="margin">
    <section v-if="store.workings" aria-label="Workings">
      <div class="line"><h2 class="heading">Workings</h2><button class="link" @click="store.explained = null">close</button></div>
      <p class="minor">{{ store.workings.title }}</p>
      <WorkingsTree :working="store.workings.working" :currency="store.explained!.figure === 'breakEvenHours' ? 'h' : currency" />
    </section>
    <section>
      <h2 class="heading">Against the target</h2>
      <LevelGauge v-if="share !== null" :width="235" :height="20" :used="share" :notches="[0.5, 0.8]" :tone="share > 1 ? 'warn' : 'act'" :label="`${money(roundText(monthly), currency)} of ${target} ${currency}`" />
      <p v-if="share !== null" class="note"><b>{{ money(roundText(monthly), currency) }} {{ currencySign(currency) }}</b> of {{ money(roundText(target!), currency) }} a month, <span :class="gap.startsWith('-') ? 'good' : 'bad'">{{ money(sizeText(gap), currency) }} {{ gap.startsWith('-') ? 'left' : 'over' }}</span></p>
      <label class="target">target a month <input class="field" :class="{ wrong: targetProblem }" inputmode="decimal" :value="target ?? ''" placeholder="none" @change="setTarget(($event.target as HTMLInputElement).value)"> {{ currency }}</label>
      <p class="bad keep">{{ targetProblem }}</p>
    </section>
    <section>
      <h2 class="heading">Blind spots <span class="minor">{{ store.spots.length ? `${store.spots.length} apply` : 'none apply' }}</span></h2>
      <div v-for="spot in store.spots" :key="spot.id" class="spot">
        <div class="line"><b>{{ spot.title }}</b><button class="link" @click="store.addSpot(spot)">add</button><button class="link" :aria-expanded="dismissing === spot.id" @click="dismissing = dismissing === spot.id ? null : spot.id">dismiss</button></div>
        <p class="minor">{{ spot.reason }}.</p>
        <form v-if="dismissing === spot.id" class="dismissal" @submit.prevent="dismiss(spot.id)"><input v-model="reasons[spot.id]" class="field" placeholder="why it does not apply" aria-label="why it does not apply" required><button class="button">Dismiss</button></form>
      </div>
      <p v-for="gone in estimate.dismissed" :key="gone.blindSpot" class="minor">{{ gone.blindSpot.replaceAll('-', ' ') }}: dismissed, “{{ gone.reason }}” <button class="link" @click="restore(gone.blindSpot)">bring back</button></p>
    </section>
    <section v-if="store.unconfirmed.length">
      <h2 class="heading"><span class="warn">•</span> Not confirmed yet</h2>
      <p class="note">{{ store.unconfirmed.length }} {{ store.unconfirmed.length === 1 ? 'value is a default' : 'values are defaults' }} that nobody has chosen. <button class="link" @click="store.confirmAll()">They are right</button></p>
    </section>
    <section>
      <h2 class="heading">Terms</h2>
      <label class="target">negotiated discount <input class="field" :class="{ wrong: termProblems.discountPercent }" inputmode="decimal" :value="estimate.discountPercent" @change="setTerm('discountPercent', ($event.target as HTMLInputElement).value)"> %</label>
      <label class="target">tax on the total <input class="field" :class="{ wrong: termProblems.taxPercent }" inputmode="decimal" :value="estimate.taxPercent" @change="setTerm('taxPercent', ($event.target as HTMLInputElement).value)"> %</label>
      <p class="bad keep">{{ termProblems.discountPercent || termProblems.taxPercent }}</p>
      <label class="allowance"><input type="checkbox" :checked="estimate.useFreeAllowance" @change="store.change(e => { e.useFreeAllowance = ($event.target as HTMLInputElement).checked })"> count on free allowances</label>
    </section>
  </aside>
</template>

<style scoped>
.margin { display: grid; gap: 14px; align-content: start; }
section { border-bottom: 1px solid var(--line); padding-bottom: 10px; }
.target { display: flex; gap: 6px; align-items: center; margin-top: 4px; }
.target .field { width: 90px; text-align: right; }
.keep { min-height: 17px; font-size: 12px; }
.spot { padding: 4px 0; }
.line { display: flex; gap: 12px; align-items: center; }
.line h2 { flex: 1; }
.line b { flex: 1; font-weight: 560; }
.dismissal { display: flex; gap: 6px; margin-top: 4px; }
.dismissal .field { flex: 1; min-width: 0; }
.allowance { display: flex; gap: 6px; align-items: center; min-height: 24px; }
</style>
