<script setup lang="ts">
import { findKind } from '../../../core/estimate/components'
import type { Field } from '../../../core/estimate/components/kind'
import type { Component } from '../../../core/estimate/estimate'
import type { PricedComponent } from '../../../core/estimate/price-estimate'

/** A row opened: all its inputs beside its Workings and every way to pay. */
const props = defineProps<{ component: Component, priced: PricedComponent }>()
const store = useEstimate()
const kind = computed(() => findKind(props.component.kind))
const options = (field: Field) => field.type === 'choice' ? field.options(store.card!, store.estimate!.region) : []
const currency = computed(() => store.priced!.currency)
const figures = ['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm', 'breakEvenHours'] as const
const cheapest = computed(() => [...props.priced.ways].sort((a, b) => Number(a.effectiveMonthly) - Number(b.effectiveMonthly))[0]?.way)
</script>

<template>
  <div class="opened">
    <div class="inputs">
      <label v-for="field in kind?.fields" :key="field.name" class="input">
        <span>{{ field.label }}<i v-if="!component.confirmed.includes(field.name)" class="warn"> · default</i></span>
        <select v-if="field.type === 'choice'" class="field" :class="{ wrong: priced.problems[field.name] }" :value="priced.inputs[field.name]" @change="store.set(component.id, field.name, ($event.target as HTMLSelectElement).value)">
          <option v-for="option in options(field)" :key="option" :value="option">{{ option }}</option>
        </select>
        <span v-else class="number"><input class="field" :class="{ wrong: priced.problems[field.name] }" inputmode="decimal" :value="priced.inputs[field.name]" @change="store.set(component.id, field.name, ($event.target as HTMLInputElement).value.trim())"> {{ field.unit }}</span>
        <span class="minor help">{{ field.help }}</span>
      </label>
      <div class="buttons"><button class="link" @click="store.duplicate(component.id)">double it</button><button class="link" @click="store.remove(component.id)">take it out</button></div>
    </div>
    <div class="figures2">
      <template v-if="priced.chosen">
        <h3 class="minor">Workings, {{ priced.chosen.way }}, a month</h3>
        <WorkingsTree :working="priced.chosen.workings.effectiveMonthly" :currency="currency" />
        <template v-if="priced.ways.length > 1">
          <h3 class="minor">Every way to pay</h3>
          <table class="ledger">
            <thead><tr><th /><th class="n">upfront</th><th class="n">monthly</th><th class="n">effective monthly</th><th class="n">first 12 months</th><th class="n">whole term</th><th class="n">breaks even at</th></tr></thead>
            <tbody>
              <tr v-for="way in priced.ways" :key="way.way" class="acts" :class="{ chosen: way.way === priced.chosen.way }">
                <td><button class="link way" :aria-pressed="way.way === priced.chosen.way" @click="store.set(component.id, 'pays', way.way)">{{ way.way }}</button><span v-if="way.way === cheapest" class="minor cheapest" title="cheapest a month">◂ cheapest</span></td>
                <td v-for="name in figures" :key="name" class="n"><ExplainedFigure :text="way[name]" :component="component.id" :way="way.way" :figure="name" /></td>
              </tr>
            </tbody>
          </table>
        </template>
      </template>
      <p v-else class="bad">{{ Object.values(priced.problems).join('. ') }}.</p>
    </div>
  </div>
</template>

<style scoped>
.opened { display: grid; grid-template-columns: 200px minmax(0, 1fr); gap: 18px; padding: 10px 14px 12px; border: 1px solid var(--act); border-radius: 0 0 4px 4px; background: var(--paper); white-space: normal; }
.input { display: grid; gap: 1px; margin-bottom: 7px; }
.number { display: flex; gap: 6px; align-items: center; }
.number .field { width: 130px; }
.figures2 h3 { margin: 2px 0 3px; }
.figures2 h3:not(:first-child) { margin-top: 12px; }
.buttons { display: flex; gap: 14px; }
.way { font-weight: 500; white-space: nowrap; }
.cheapest { margin-left: 6px; white-space: nowrap; }
.figures2 th { white-space: normal; }
</style>
