<script setup lang="ts">
import { namedObject } from '../../../core/text/named'
import { z } from 'zod'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { referenceState } from '../../../shared/contracts/spend-settings'

/** Every SKU code of the charges in plain words: from the rate cards, or in own words; unknown ones first where money is on them. */
const data = useData()
const session = useSession()
const skus = useSkuWords()
useHead({ title: 'SKU codes · Rain Barrel' })
const { attempt, problem, busy } = useAttempt()
type Code = { sku: string; meter: string | null; service: string | null; amounts: { currency: string; amount: string }[]; weight: number }
const codes = ref<Code[]>([])
const own = ref<Record<string, { words: string }>>({})
const sought = ref('')
const unknownOnly = ref(false)
const load = () =>
  attempt(async () => {
    if (!data.days) return
    const days = data.days
    await session.load()
    const [[answer], reference] = await Promise.all([
      askAnswers([
        {
          measure: 'effectiveCost',
          splitBy: ['SkuId', 'SkuMeter', 'ServiceName'],
          grain: null,
          ...resolvePeriod('all', days),
          leaveOut: { SkuId: [null] },
        },
      ]),
      session.seesAll ? client.get('spend/reference', referenceState) : null,
    ])
    own.value = namedObject(reference?.body.skus ?? {})
    const found = new Map<string, Code>()
    for (const row of answer!.rows) {
      const sku = row.values.SkuId!
      const code = found.get(sku) ?? {
        sku,
        meter: row.values.SkuMeter ?? null,
        service: row.values.ServiceName ?? null,
        amounts: [],
        weight: 0,
      }
      found.set(sku, code)
      const known = code.amounts.find(a => a.currency === row.currency)
      if (known) known.amount = addTexts([known.amount, row.amount])
      else code.amounts.push({ currency: row.currency, amount: row.amount })
      code.weight += Math.abs(Number(row.amount))
    }
    await skus.learn([...found.keys()])
    codes.value = [...found.values()].sort((a, b) => b.weight - a.weight)
  })
watch(() => data.facts?.revision, load, { immediate: true })
const unknown = computed(() => codes.value.filter(code => !skus.words[code.sku]))
const shown = computed(() => {
  const words = sought.value.trim().toLowerCase()
  return (unknownOnly.value ? unknown.value : codes.value).filter(
    code => !words || [code.sku, code.meter, code.service, skus.words[code.sku]?.words].some(text => text?.toLowerCase().includes(words)),
  )
})
const editing = ref<string | null>(null)
const text = ref('')
const charged = ref<'existing' | 'use'>('use')
function edit(code: Code) {
  editing.value = code.sku
  text.value = skus.words[code.sku]?.words ?? ''
  charged.value = skus.words[code.sku]?.charged ?? 'use'
}
const keep = (sku: string, words: string | null) =>
  attempt(async () => {
    await client.send('POST', 'spend/skus', { sku, entry: words ? { words, charged: charged.value } : null }, z.object({ sku: z.string() }))
    editing.value = null
    skus.forget(sku)
    await data.load()
    await load()
  })
const frame = useTemplateRef<HTMLElement>('frame')
const virtual = useVirtualizer(
  computed(() => ({ count: shown.value.length, getScrollElement: () => frame.value, estimateSize: () => 30, overscan: 10 })),
)
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <h1 class="sentence">
      {{ count(codes.length) }} {{ codes.length === 1 ? 'SKU code is' : 'SKU codes are' }} on the charges{{ codes.length ? ';' : '.' }}
      {{
        !codes.length
          ? ''
          : unknown.length
            ? `${count(unknown.length)} of them nobody has put in plain words yet`
            : 'all of them in plain words'
      }}.
    </h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="bar">
      <input v-model="sought" class="field" placeholder="Search codes and words" aria-label="Search codes and words" /><label
        v-if="unknown.length"
        ><input v-model="unknownOnly" type="checkbox" /> only those without words</label
      >
    </div>
    <div ref="frame" class="frame" tabindex="0" role="group" aria-label="codes">
      <table class="ledger">
        <thead>
          <tr>
            <th>code</th>
            <th>in plain words</th>
            <th>charged for</th>
            <th>from</th>
            <th class="n">effective, all that is loaded</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-if="virtual.getVirtualItems()[0]?.start" aria-hidden="true">
            <td colspan="6" :style="{ height: `${virtual.getVirtualItems()[0]!.start}px`, padding: 0 }" />
          </tr>
          <tr v-for="item in virtual.getVirtualItems()" :key="shown[item.index]?.sku" class="acts">
            <template v-for="code in [shown[item.index]!]" :key="code.sku">
              <td>
                <NuxtLink class="link" :to="{ path: '/spend/of', query: { dimension: 'SkuId', value: code.sku } }">{{ code.sku }}</NuxtLink>
              </td>
              <td v-if="editing === code.sku" colspan="3">
                <form class="edit" @submit.prevent="keep(code.sku, text.trim() || null)">
                  <input v-model="text" class="field" :aria-label="`What ${code.sku} means`" maxlength="300" /><select
                    v-model="charged"
                    class="field"
                    aria-label="charged for"
                  >
                    <option value="existing">for existing</option>
                    <option value="use">for use</option></select
                  ><button class="button">Save</button><button type="button" class="link" @click="editing = null">cancel</button>
                </form>
              </td>
              <template v-else
                ><td :class="{ none: !skus.words[code.sku] }">
                  {{ skus.words[code.sku]?.words ?? [code.service, code.meter].filter(Boolean).join(': ') }}
                </td>
                <td>{{ skus.words[code.sku]?.charged ?? '–' }}</td>
                <td class="minor">
                  {{ own[code.sku] ? 'own words' : skus.words[code.sku] ? 'rate card' : 'the charge itself' }}
                </td></template
              >
              <td class="n">
                <span v-for="a in code.amounts" :key="a.currency">{{ money(a.amount, a.currency) }} {{ a.currency }} </span>
              </td>
              <td class="n">
                <button v-if="session.seesAll" class="link" @click="edit(code)">change</button>{{ ' ' }}
                <button v-if="own[code.sku]" class="link" @click="keep(code.sku, null)">reset</button>
              </td>
            </template>
          </tr>
          <tr aria-hidden="true">
            <td
              colspan="6"
              :style="{
                height: `${Math.max(0, virtual.getTotalSize() - (virtual.getVirtualItems().at(-1)?.end ?? 0))}px`,
                padding: 0,
                border: 0,
              }"
            />
          </tr>
        </tbody>
      </table>
      <p v-if="!shown.length" class="note">
        {{
          busy
            ? 'Reading…'
            : data.facts && !data.facts.lastDay
              ? 'Nothing is loaded yet: codes come with a bill.'
              : 'No code, and none of the words, has that in it.'
        }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 18px;
  align-items: center;
  margin: 8px 0;
}
.bar .field {
  width: 300px;
}
.frame {
  max-height: 560px;
  overflow: auto;
  position: relative;
}
.frame thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 1;
}
.none {
  font-style: italic;
  color: var(--ink-2);
}
.edit {
  display: flex;
  gap: 8px;
  align-items: center;
}
.edit .field:first-child {
  flex: 1;
}
</style>
