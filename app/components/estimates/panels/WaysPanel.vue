<script setup lang="ts">
import { waysForAll } from '../../../../core/estimate/scenarios/ways-for-all'

/** Every way to pay for the whole, side by side. None is chosen for anyone: one may be looked at as a scenario. */
const store = useEstimate()
const compared = computed(() => waysForAll(store.estimate!, store.prices))
const first = computed(() => compared.value.ways[0]!)
const cheapest = computed(
  () =>
    compared.value.ways.filter(way => !way.lacks).sort((a, b) => Number(a.figures.effectiveMonthly) - Number(b.figures.effectiveMonthly))[0]
      ?.way,
)
const shown = (amount: string) => (Number(amount) === 0 ? '–' : money(roundText(amount), store.currency))
const saved = (amount: string) => signedMoney(subtractTexts(amount, first.value.figures.effectiveMonthly), store.currency)
const tone = (amount: string) => (Number(amount) > Number(first.value.figures.effectiveMonthly) ? 'bad' : 'good')
</script>

<template>
  <div>
    <h2 class="heading">
      Every way to pay for the whole <span class="minor">{{ store.currency }}; what offers no commitment stays as it runs</span>
    </h2>
    <p v-if="compared.ways.length < 2" class="note">Nothing here has a commitment on offer.</p>
    <div v-else class="scroll" tabindex="0" role="group" aria-label="ways to pay">
      <table class="ledger ways">
        <thead>
          <tr>
            <th />
            <th class="n">rows</th>
            <th class="n">upfront</th>
            <th class="n">monthly</th>
            <th class="n">effective monthly</th>
            <th class="n">to on-demand</th>
            <th class="n">first 12 months</th>
            <th class="n">over {{ compared.years }} {{ compared.years === 1 ? 'year' : 'years' }}</th>
            <th class="n">breaks even at</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="way in compared.ways" :key="way.way">
            <td>
              {{ way.way
              }}<span v-if="way.lacks" class="bad"> {{ way.lacks.rows }} {{ way.lacks.rows === 1 ? 'row' : 'rows' }} not counted</span
              ><span v-if="way.way === cheapest" class="minor"> ◂ cheapest</span>
            </td>
            <td class="n">{{ way.rows }}</td>
            <td class="n">{{ shown(way.figures.upfront) }}</td>
            <td class="n">{{ shown(way.figures.monthly) }}</td>
            <td class="n">{{ shown(way.figures.effectiveMonthly) }}</td>
            <td class="n" :class="tone(way.figures.effectiveMonthly)">{{ saved(way.figures.effectiveMonthly) }}</td>
            <td class="n">{{ shown(way.figures.firstYear) }}</td>
            <td class="n">{{ shown(way.figures.wholeTerm) }}</td>
            <td class="n">{{ way.breakEvenHours ? `${decimals(roundText(way.breakEvenHours), 0)} h` : '–' }}</td>
            <td>
              <button
                v-if="way.way !== 'on-demand'"
                class="link"
                :aria-label="`${way.way} as a scenario`"
                @click="store.scenarioId = store.addScenario(way.way, { whole: { pays: way.way }, rows: {}, conditions: [] })"
              >
                as a scenario
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="minor">A commitment is charged for every hour of its term. Below its break-even hours, on-demand costs less.</p>
  </div>
</template>

<style scoped>
.ways {
  max-width: 1100px;
}
</style>
