<script setup lang="ts">
import { minorDecimals } from '../../../core/money/currency'
import type { ImportStatus } from '../../../shared/contracts/imports'

const props = defineProps<{ load: ImportStatus }>()
defineEmits<{ close: [] }>()
const sources = useSources()
const rulesOpen = ref(false)
const broken = computed(() => props.load.conformance?.rules.filter(rule => rule.rows > 0) ?? [])

const rows = computed(() => props.load.files.flatMap(file => file.periods.map(period => ({ file: file.name, ...period }))))
const proof = computed(() =>
  props.load.periods.map(period => {
    const now = props.load.inDatabase.find(p => p.billingPeriodStart === period.billingPeriodStart && p.currency === period.currency)
    return {
      ...period,
      now,
      equal: now?.billedCost === period.billedCost && now?.effectiveCost === period.effectiveCost && now?.rows === period.rows,
    }
  }),
)
const signed = (amount: string, currency: string) =>
  `${amount.startsWith('-') || amount === '0' ? '' : '+'}${decimals(amount, minorDecimals(currency))}`
</script>

<template>
  <aside class="detail" aria-label="Load">
    <div class="title">
      <h2 class="heading">{{ load.source }}</h2>
      <button class="link" @click="$emit('close')">close</button>
    </div>
    <p class="minor">
      <span v-for="file in load.files" :key="file.name" :title="`SHA-256 ${file.sha256}`"
        >{{ file.name }} ({{ file.sha256.slice(0, 10) }}) </span
      >· {{ load.who }} · {{ timeText(load.startedAt)
      }}<template v-if="load.deliveredAt && timeText(load.deliveredAt) !== timeText(load.startedAt)">
        · made {{ timeText(load.deliveredAt) }}</template
      >
    </p>

    <template v-if="load.state === 'checking' || load.state === 'loading'">
      <p>
        {{ load.state === 'checking' ? 'Checking' : 'Swapping in' }}: {{ bytesText(load.bytesDone) }} of {{ bytesText(load.bytesTotal) }},
        {{ count(load.rows) }} rows<template v-if="load.errorCount"
          >, <span class="bad">{{ count(load.errorCount) }} errors so far</span></template
        >
      </p>
    </template>
    <p v-if="load.message" :class="load.state === 'loaded' ? '' : 'warn'">{{ load.message }}</p>

    <LoadChoice v-if="load.state === 'choosing' && load.options" :load="load" :options="load.options" />
    <LoadSteps :load="load" />

    <template v-if="load.state === 'loaded' && load.files.length">
      <h3 class="heading">What changed</h3>
      <table class="ledger">
        <thead>
          <tr>
            <th>period</th>
            <th class="n">before</th>
            <th class="n">now</th>
            <th class="n">change, billed</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="change in load.changes" :key="change.billingPeriodStart + change.currency">
            <td>{{ monthText(change.billingPeriodStart) }}</td>
            <td class="n">{{ change.before === null ? 'new' : money(change.before, change.currency) }}</td>
            <td class="n">{{ money(change.after, change.currency) }}</td>
            <td class="n">{{ signed(change.difference, change.currency) }} {{ change.currency }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="sources.moved?.lines.length">
        <h3 class="heading">On which lines</h3>
        <ChangedLines :moved="sources.moved" />
      </template>
      <p v-for="sum in load.corrections" :key="sum.billingPeriodStart + sum.currency">
        {{ count(sum.rows) }} {{ sum.rows === 1 ? 'charge corrects' : 'charges correct' }} earlier ones:
        {{ money(sum.billedCost, sum.currency) }} {{ sum.currency }}, with their own sign.
      </p>
      <h3 class="heading">Files against the database</h3>
      <table class="ledger">
        <thead>
          <tr>
            <th>billed and effective</th>
            <th class="n">rows</th>
            <th class="n">billed</th>
            <th class="n">effective</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.file + row.billingPeriodStart + row.currency">
            <td class="files">{{ row.file }}</td>
            <td class="n">{{ count(row.rows) }}</td>
            <td class="n">{{ money(row.billedCost, row.currency) }}</td>
            <td class="n">{{ money(row.effectiveCost, row.currency) }}</td>
          </tr>
          <template v-for="line in proof" :key="line.billingPeriodStart + line.currency">
            <tr class="total">
              <td>files, {{ monthText(line.billingPeriodStart) }}, {{ line.currency }}</td>
              <td class="n">{{ count(line.rows) }}</td>
              <td class="n">{{ money(line.billedCost, line.currency) }}</td>
              <td class="n">{{ money(line.effectiveCost, line.currency) }}</td>
            </tr>
            <tr class="total">
              <td>
                database <b :class="line.equal ? 'good' : 'warn'">{{ line.equal ? 'equal' : line.now ? 'differs' : 'replaced since' }}</b>
              </td>
              <td class="n">{{ line.now ? count(line.now.rows) : '–' }}</td>
              <td class="n">{{ line.now ? money(line.now.billedCost, line.currency) : '–' }}</td>
              <td class="n">{{ line.now ? money(line.now.effectiveCost, line.currency) : '–' }}</td>
            </tr>
          </template>
        </tbody>
      </table>
      <ul v-if="load.warnings.length" class="warn">
        <li v-for="warning in load.warnings" :key="warning">{{ warning }}</li>
      </ul>
    </template>

    <template v-if="load.conformance && load.conformance.rows">
      <h3 class="heading">Against FOCUS</h3>
      <p>
        {{
          broken.length
            ? `${broken.length} of ${load.conformance.rules.length} rules on relations are broken`
            : `All ${load.conformance.rules.length} rules on relations hold`
        }}
        in {{ count(load.conformance.rows) }} rows<template v-if="load.mapped">, as mapped</template>.
        <button class="link" :aria-expanded="rulesOpen" @click="rulesOpen = !rulesOpen">{{ rulesOpen ? 'fewer' : 'every rule' }}</button>
      </p>
      <table v-if="broken.length || rulesOpen" class="ledger">
        <tbody>
          <tr v-for="rule in rulesOpen ? load.conformance.rules : broken" :key="rule.id">
            <td :class="rule.rows ? (rule.severity === 'error' ? 'bad' : 'warn') : 'good'">
              {{ rule.rows ? `${count(rule.rows)} ${rule.rows === 1 ? 'row' : 'rows'}` : 'holds' }}
            </td>
            <td>
              {{ rule.says
              }}<template v-if="rule.examples.length"
                ><br /><span class="minor"
                  >{{ rule.severity }}, such as row {{ rule.examples.map(e => e.row).join(', ') }} of {{ rule.examples[0]!.file }}</span
                ></template
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p class="minor">
        {{ load.conformance.columns.focus.length }} FOCUS columns<template v-if="load.conformance.columns.own.length"
          >, own columns {{ load.conformance.columns.own.join(', ') }}</template
        ><template v-if="load.conformance.columns.unknown.length"
          >; <span class="warn">neither FOCUS nor x_: {{ load.conformance.columns.unknown.join(', ') }}</span></template
        ><template v-if="load.conformance.columns.empty?.length"
          >; without any value {{ load.conformance.columns.empty.join(', ') }}</template
        >.
      </p>
    </template>

    <template v-if="load.errorCount">
      <h3 class="heading bad">{{ count(load.errorCount) }} {{ load.errorCount === 1 ? 'error' : 'errors' }}; nothing was loaded</h3>
      <p v-if="load.errors.length < load.errorCount" class="minor">The first {{ count(load.errors.length) }} are listed.</p>
      <div class="errors">
        <table class="ledger">
          <thead>
            <tr>
              <th>where</th>
              <th>what and how to mend it</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(error, index) in load.errors" :key="index">
              <td class="where">
                {{ error.file }}<br />{{ error.row === null ? 'whole file' : `row ${error.row}`
                }}<template v-if="error.column">, {{ error.column }}</template>
              </td>
              <td>
                <template v-if="error.value !== null"
                  ><code>{{ error.value === '' ? '(empty)' : error.value }}</code
                  >: </template
                >{{ error.reason }}.<br /><span class="minor">{{ error.mend }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.detail {
  border-left: 1px solid var(--line-strong);
  padding-left: 18px;
  min-width: 0;
}
.title {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.detail h3 {
  margin: 14px 0 2px;
}
.files,
.where {
  overflow-wrap: anywhere;
}
.where {
  min-width: 130px;
}
.errors {
  max-height: 420px;
  overflow: auto;
}
.errors td {
  vertical-align: top;
  padding-block: 5px;
}
code {
  background: var(--paper-sunk);
  padding: 0 4px;
  border-radius: 3px;
  overflow-wrap: anywhere;
}
</style>
