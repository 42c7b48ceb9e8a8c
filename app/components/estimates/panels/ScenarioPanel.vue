<script setup lang="ts">
import { waysToPay } from '../../../../core/estimate/estimate'

/** Scenarios: columns beside the first under other choices. One is begun by a choice for everything, or empty to be changed row by row. */
const store = useEstimate()
const name = ref('')
const way = ref<string>(waysToPay[1])
const place = ref('')
const places = computed(() =>
  cardsHeld(store.cardList, today()).flatMap(c =>
    c.regions.map(region => ({ value: `${c.provider}\n${region}`, label: `${region}, ${c.provider}` })),
  ),
)
const offered = computed(() => waysToPay.filter(w => w !== 'on-demand' && store.base!.rows.some(row => row.ways.some(x => x.way === w))))
watchEffect(() => {
  if (offered.value.length && !offered.value.includes(way.value as (typeof waysToPay)[number])) way.value = offered.value[0]!
  if (!place.value) place.value = places.value.find(p => p.value !== `${store.estimate!.provider}\n${store.estimate!.region}`)?.value ?? ''
})
async function move() {
  const [provider, region] = place.value.split('\n') as [string, string]
  store.scenarioId = (await store.addMove(provider, region)) ?? store.scenarioId
}
function begin() {
  store.scenarioId = store.addScenario(name.value.trim())
  name.value = ''
}
const overrides = (id: string) =>
  Object.values(store.estimate!.scenarios.find(s => s.id === id)!.rows).reduce((n, row) => n + Object.keys(row).length, 0)
const rename = (id: string, text: string) => text.trim() && store.changeScenario(id, s => ({ ...s, name: text.trim().slice(0, 80) }))
const wholeText = (whole: Record<string, string>) =>
  Object.entries(whole)
    .map(([field, value]) => (field === 'where' ? `everything in ${value || store.estimate!.region}` : `everything ${value}`))
    .join(', ')
</script>

<template>
  <div class="box">
    <h2 class="heading">Scenarios</h2>
    <form class="line" @submit.prevent="store.scenarioId = store.addScenario(way, { whole: { pays: way }, rows: {}, conditions: [] })">
      <span>everything</span
      ><select v-model="way" class="field" aria-label="way to pay for everything">
        <option v-for="w in offered" :key="w">{{ w }}</option></select
      ><button class="button" :disabled="!offered.length">Add</button>
    </form>
    <form class="line" @submit.prevent="move">
      <span>everything in</span
      ><select v-model="place" class="field" aria-label="place for everything">
        <option v-for="p in places" :key="p.value" :value="p.value">{{ p.label }}</option></select
      ><button class="button" :disabled="!place">Add</button>
    </form>
    <form class="line" @submit.prevent="begin">
      <span>row by row</span
      ><input
        v-model="name"
        class="field"
        required
        maxlength="80"
        placeholder="name of the scenario"
        aria-label="name of the scenario"
      /><button class="button" :disabled="!name.trim()">Add</button>
    </form>
    <div v-if="store.estimate!.scenarios.length" class="scroll" tabindex="0" role="group" aria-label="scenarios">
      <table class="ledger">
        <thead>
          <tr>
            <th>scenario</th>
            <th>for everything</th>
            <th class="n">inputs of its own</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(scenario, i) in store.estimate!.scenarios" :key="scenario.id">
            <td>
              {{ columnLetter(i + 1) }} ·
              <input
                v-held="scenario.name"
                class="field"
                maxlength="80"
                :aria-label="`name of scenario ${columnLetter(i + 1)}`"
                @change="rename(scenario.id, ($event.target as HTMLInputElement).value)"
              />
            </td>
            <td>
              {{ wholeText(scenario.whole) || '–'
              }}<span v-if="scenario.conditions.length" class="minor"> holds {{ scenario.conditions.join(' and ') }}</span>
            </td>
            <td class="n">{{ overrides(scenario.id) }}</td>
            <td>
              <button class="link" @click="store.scenarioId = scenario.id">edit its inputs</button>{{ ' ' }}
              <button class="link" :aria-label="`make ${scenario.name} the estimate`" @click="store.adopt(scenario.id)">
                make it the estimate</button
              >{{ ' ' }}
              <button class="link" :aria-label="`delete ${scenario.name}`" @click="store.removeScenario(scenario.id)">delete</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="minor">
      The estimate as it stands is A. Each scenario is a column beside it, with the difference. Click its heading to see and edit its
      inputs; Delete on a cell goes back to A's value.
    </p>
    <ProblemNote v-if="store.problem" :problem="store.problem" />
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.line > span {
  width: 92px;
  color: var(--ink-2);
}
.line .field {
  width: 280px;
  max-width: 100%;
}
.ledger {
  max-width: 900px;
}
td .link {
  margin-right: 12px;
}
</style>
