<script setup lang="ts">
import type { ActionState } from '../../shared/contracts/savings'

const savings = useSavings()
const session = useSession()
useHead({ title: 'Savings · Rain Barrel' })
onMounted(() => savings.load())
const troubles: Partial<Record<ActionState, string>> = {
  failed: 'last try failed',
  lapsed: 'approval lapsed',
  'not known': 'not known whether done',
}
const marks = { spotted: '☐', 'under way': '◧', done: '☑', gone: '☒' } as const
</script>

<template>
  <div class="page">
    <p v-if="!savings.state && !savings.problem" class="note" role="status">Looking at what runs…</p>
    <ProblemNote v-if="savings.problem" :problem="savings.problem" :retry="savings.state ? undefined : () => savings.load()" />
    <template v-if="savings.state">
      <h1 class="sentence">
        <template v-if="!savings.state.connected && !savings.state.opportunities.length"
          >No cloud is connected. Set its address in the environment and start Rain Barrel again.</template
        >
        <template v-else-if="savings.state.said.length">{{ savings.state.said.join(' ') }}</template>
        <template v-else-if="savings.looking">Looking at what runs…</template>
        <template v-else>Nothing to save is in sight.</template>
      </h1>
      <div class="figures">
        <span v-if="savings.open.length"
          ><span class="big">{{ money(savings.monthly, savings.currency) }} {{ currencySign(savings.currency) }}</span
          ><span class="label"
            >a month, in {{ savings.open.length }} {{ savings.open.length === 1 ? 'opportunity' : 'opportunities' }}</span
          ></span
        >
        <button v-if="session.seesAll" class="link" :disabled="savings.looking || !savings.state.connected" @click="savings.look()">
          {{ savings.looking ? 'Looking…' : 'Look again' }}
        </button>
        <span v-if="savings.state.ledger.length" class="sofar"
          >so far <b>{{ money(savings.promised, savings.currency) }}</b> promised ·
          <b class="good">{{ money(savings.seen, savings.currency) }} {{ currencySign(savings.currency) }}</b> seen on the bill</span
        >
      </div>
      <div class="columns" :class="{ open: savings.chosen }">
        <div class="body">
          <div v-if="savings.state.opportunities.length" class="scroll" tabindex="0" role="group" aria-label="opportunities">
            <table class="ledger" data-testid="opportunities">
              <thead>
                <tr>
                  <th>what</th>
                  <th>where</th>
                  <th>owner</th>
                  <th class="n">saves a month</th>
                  <th class="n">work</th>
                  <th>state</th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="opportunity in savings.state.opportunities"
                  :key="opportunity.id"
                  class="acts"
                  :class="{ chosen: savings.chosenId === opportunity.id }"
                >
                  <td>
                    <button class="link" :aria-pressed="savings.chosenId === opportunity.id" @click="savings.choose(opportunity.id)">
                      {{ opportunity.title }}
                    </button>
                  </td>
                  <td>{{ opportunity.subAccountName }} · {{ opportunity.region }}</td>
                  <td>
                    {{ opportunity.owner ?? '–' }}<span v-if="opportunity.centre" class="minor centre">{{ opportunity.centre }}</span>
                  </td>
                  <td class="n">{{ money(opportunity.monthlySaving, opportunity.currency) }} {{ opportunity.currency }}</td>
                  <td class="n">{{ opportunity.minutesOfWork }} min</td>
                  <td>
                    <span aria-hidden="true">{{ marks[opportunity.state] }}</span> {{ opportunity.state
                    }}<span v-if="opportunity.action && troubles[opportunity.action.state]" class="bad"
                      >, {{ troubles[opportunity.action.state] }}</span
                    >
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <SavingsLedger />
          <ConnectionBar v-if="session.seesAll" @delivered="savings.load()" />
        </div>
        <OpportunityMargin v-if="savings.chosen" :opportunity="savings.chosen" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.centre {
  margin-left: 8px;
}
.sofar {
  margin-left: auto;
  color: var(--ink-2);
}

.body {
  min-width: 0;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 24px;
  margin-top: 6px;
}
.columns.open {
  grid-template-columns: minmax(0, 1fr) 370px;
}
@media (max-width: 1000px) {
  .columns.open {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
