<script setup lang="ts">
import type { Component } from '../../../core/estimate/estimate'
import { evaluate } from '../../../core/working/working'
import { costOfEach, lineOfRow } from '../../../core/estimate/pricing/facts-of-row'
import { figureOf } from '../../../core/estimate/pricing/ways-to-pay'
import { chargedFor } from '../../../core/ratecard/describe'

/** A row opened: all its inputs beside its Workings and every way to pay. Opening changes nothing. */
const props = defineProps<{ component: Component }>()
const store = useEstimate()
const row = computed(() => store.priced!.byId.get(props.component.id)!)
const each = computed(() => costOfEach(row.value, store.priced!.termYears))
/** What is known of the card's line: what it is charged for, what the provider promises and what it leaves out. */
const line = computed(() => lineOfRow(row.value))
const months = computed(() => row.value.chosen?.months?.map(month => Number(evaluate(month).toFixed(4))) ?? null)
</script>

<template>
  <div class="opened">
    <OpenedInputs :component="component" :row="row" />
    <div class="beside">
      <template v-if="row.chosen">
        <p v-if="line" class="minor facts">
          Charged for {{ chargedFor(line) === 'existing' ? 'existing' : 'use'
          }}<template v-if="line.serviceLevel"> · {{ line.serviceLevel }}</template
          ><template v-if="line.excludes"> · not in it: {{ line.excludes }}</template>
        </p>
        <p v-if="row.charges?.facts?.length || each" class="facts">
          <template v-for="fact in row.charges?.facts" :key="fact.label"
            >{{ fact.label }} <b>{{ quantity(evaluate(fact.working).toFixed()) }}</b> · </template
          ><template v-if="each"
            >cost per {{ each.label }}
            <b>{{ each.cost === null ? '–' : money(roundText(each.cost), store.currency) }} {{ store.currency }}</b>
            a month</template
          >
        </p>
        <p v-if="row.uplifts.length" class="facts own">
          Uplifts: {{ row.uplifts.map(u => `${u.name} (${u.who}, from ${dayText(u.validFrom)})`).join('; ') }}
        </p>
        <MonthBars v-if="months" :amounts="months" :currency="store.currency" />
        <OpenedWays v-if="row.ways.length > 1" :component="component" :row="row" />
        <h3 class="minor">Workings, {{ row.chosen.way }}, a month</h3>
        <WorkingsTree :working="figureOf(row.chosen, 'effectiveMonthly', store.priced!.termYears)" :currency="store.currency" />
      </template>
      <p v-else class="bad">{{ Object.values(row.problems).join('. ') }}.</p>
    </div>
  </div>
</template>

<style scoped>
.opened {
  display: grid;
  grid-template-columns: 262px minmax(0, 1fr);
  gap: 20px;
  padding: 10px 14px 12px;
  border: 1px solid var(--act);
  border-radius: 0 0 4px 4px;
  background: var(--paper);
  white-space: normal;
}
.beside h3 {
  margin: 2px 0 3px;
}
.beside h3:not(:first-child) {
  margin-top: 10px;
}
.facts {
  margin-top: 5px;
}
.own {
  color: var(--warn);
}
.beside {
  overflow-x: auto;
}
@media (max-width: 800px) {
  .opened {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
