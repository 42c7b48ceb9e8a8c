<script setup lang="ts">
import { CSV_CELL_BYTES, linesSize } from '../../../shared/contracts/spend-export'
import { tableFormats, type TableFormat } from '../../../shared/table-formats'

/** Takes away exactly what is shown, or the charge lines behind it with chosen columns and their size said first. */
const spend = useSpend()
const open = ref(false)
const what = ref<'shown' | 'lines'>('shown')
const size = ref<{ rows: number; bytes: number; columns: string[] } | null>(null)
const chosen = ref([
  'ChargePeriodStart',
  'SubAccountName',
  'ServiceName',
  'SkuId',
  'SkuMeter',
  'ResourceId',
  'ResourceName',
  'ChargeCategory',
  'PricingQuantity',
  'PricingUnit',
  'BilledCost',
  'EffectiveCost',
  'BillingCurrency',
  'Tags',
])
const { attempt, problem, busy } = useAttempt()
const lineQuestion = () => ({
  ...spend.question({ keep: keptWithSteps(spend.sentence!) }),
  reportCurrency: undefined,
  measure: 'billedCost' as const,
})
watch(
  [open, what, chosen],
  () =>
    open.value &&
    what.value === 'lines' &&
    attempt(async () => {
      size.value = await client.send(
        'POST',
        'spend/lines-size',
        { question: lineQuestion(), columns: chosen.value.length ? chosen.value : ['BilledCost'], format: 'csv' },
        linesSize,
      )
    }),
  { deep: true },
)
/** How large the table is: as many cells a row as it shows values and figures. */
const cells = computed(() => {
  const sentence = spend.sentence!
  const starts = sentence.across
    ? new Set((spend.across?.rows ?? []).map(row => (sentence.across === 'start' ? row.start : row.values[sentence.across!]))).size
    : 0
  return sentence.splitBy.length + starts + 1 + spend.tableColumns.length
})
const offered = computed(() =>
  (size.value?.columns ?? []).map(value => ({ value, label: value, note: dimensionLabel(value) === value ? '' : dimensionLabel(value) })),
)
const tick = (column: string) => {
  chosen.value = chosen.value.includes(column) ? chosen.value.filter(c => c !== column) : [...chosen.value, column]
}
const name = () => `spend ${periodText(spend.period)}`.replaceAll(' ', '-')

function take(format: TableFormat) {
  const { shown: sentence } = spend
  return attempt(async () => {
    if (what.value === 'lines') {
      const { blob } = await client.file('spend/lines', { question: lineQuestion(), columns: chosen.value, format })
      saveFile(blob, `charges.${format}`)
    } else {
      const table = {
        question: spend.question({ splitBy: sentence!.splitBy, grain: sentence!.grain }),
        format,
        currency: spend.currency,
        across: sentence!.across,
        columns: spend.tableColumns,
        before: spend.compared && { start: spend.compared.start, end: spend.compared.end, ends: spend.compared.ends },
        title: `${measureNames[sentence!.measure]}, ${periodText(spend.period)}`,
      }
      const { blob } = await client.file('spend/table', table)
      saveFile(blob, `${name()}.${format}`)
      // CSV holds nothing but its rows: what there is to know beside them is a file of its own
      if (format === 'csv') saveFile((await client.file('spend/table', { ...table, part: 'notes' })).blob, `${name()} notes.txt`)
    }
    open.value = false
  })
}
</script>

<template>
  <UPopover v-model:open="open">
    <button class="link">Download</button>
    <template #content>
      <div class="box">
        <div class="kinds" role="group" aria-label="What to download">
          <button class="kind" :aria-pressed="what === 'shown'" @click="what = 'shown'">the table as shown</button>
          <button class="kind" :aria-pressed="what === 'lines'" @click="what = 'lines'">
            the charge lines{{ spend.sentence!.steps.length ? ' of the path' : '' }}
          </button>
        </div>
        <template v-if="what === 'lines'">
          <p class="size" role="status">
            <template v-if="size"
              >{{ count(size.rows) }} charges, about {{ bytesText(size.bytes) }} as CSV, {{ chosen.length }} columns</template
            ><template v-else>Counting…</template>
          </p>
          <OptionList v-if="size" :options="offered" :several="chosen" label="columns" @choose="tick" />
        </template>
        <p v-else class="size">
          {{ count(spend.rows.length) }} {{ spend.rows.length === 1 ? 'row' : 'rows' }} of the whole Sentence, about
          {{ bytesText(spend.rows.length * cells * CSV_CELL_BYTES) }} as CSV, every digit, with what there is to know beside them.
        </p>
        <div class="formats">
          <button
            v-for="({ label }, format) in tableFormats"
            :key="format"
            class="button"
            :disabled="busy || (what === 'lines' && !chosen.length)"
            @click="take(format)"
          >
            {{ label }}
          </button>
        </div>
        <ProblemNote v-if="problem" :problem="problem" />
      </div>
    </template>
  </UPopover>
</template>

<style scoped>
.box {
  padding: 10px 12px;
  width: 366px;
}
.kinds {
  display: flex;
  gap: 14px;
}
.kind {
  min-height: 24px;
  color: var(--ink-3);
}
.kind[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -2px var(--act);
}
.size {
  margin: 6px 0;
  color: var(--ink-2);
}
.formats {
  display: flex;
  gap: 6px;
  margin-top: 8px;
}
</style>
