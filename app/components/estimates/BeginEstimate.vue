<script setup lang="ts">
import { readEstimate } from '../../../core/estimate/documents/estimate-file'
import { newEstimate, type Estimate } from '../../../core/estimate/estimate'
import type { RateCardEntry } from '../../../shared/contracts/reference-data'
import { estimateOfUse, type Used } from '../../utils/estimate-from-use'

/** Beginning an estimate: on a rate card, from what runs, or from a file. It is opened when it is there. */
const props = defineProps<{ attempt: (work: () => Promise<void>) => Promise<boolean> }>()
const estimates = useEstimateList()
const router = useRouter()
const route = useRoute()
const name = ref('')
const cardKey = ref('')
const region = ref('')
const picker = useTemplateRef<HTMLInputElement>('picker')
const keyOf = (card: RateCardEntry) => keyOfCard(versionOfEntry(card))
const cards = computed(() => estimates.cards)
const card = computed(() => cards.value.find(one => keyOf(one) === cardKey.value))
watch(
  cards,
  () => {
    const [first] = cardsHeld(cards.value, today())
    cardKey.value ||= first ? keyOf(first) : ''
  },
  { immediate: true },
)
watch(
  card,
  () => {
    if (!card.value?.regions.includes(region.value)) region.value = card.value?.regions[0] ?? ''
  },
  { immediate: true },
)

const open = async (estimate: Estimate) => void (await router.push(`/estimates/${await estimates.save(estimate)}`))
const begin = () =>
  props.attempt(async () => {
    if (card.value) await open(newEstimate(name.value.trim(), card.value, region.value, today()))
  })
async function bringIn(files: FileList | null) {
  const file = files?.[0]
  if (!file) return
  await props.attempt(async () => {
    const title = `«${file.name}» is not an estimate`
    const read = readEstimate(await file.text())
    if ('problems' in read) throw refusal(title, `${read.problems.slice(0, 5).join('; ')}.`)
    const isLoaded = (wanted: Estimate['cards'][number]) => cards.value.some(known => keyOf(known) === keyOfCard(wanted))
    const missing = read.estimate.cards.find(wanted => !isLoaded(wanted))
    if (missing) {
      const version = `${missing.date}${missing.revision > 1 ? `, revision ${missing.revision}` : ''}`
      throw refusal(
        title,
        `It is priced on the rate card of ${missing.provider} from ${version}, which is not loaded. Drop that card under Sources first.`,
      )
    }
    await open(read.estimate)
  })
  if (picker.value) picker.value.value = ''
}

// Spend hands over a month and what it is narrowed to, with what people call that
const used = ref<Used | null>(null)
const narrowingText = computed(
  () =>
    used.value?.called ||
    Object.entries(used.value?.keep ?? {})
      .map(([dimension, values]) => `${dimensionLabel(dimension)} ${values.map(value => valueLabel(dimension, value)).join(' or ')}`)
      .join(', '),
)
const everything = (): Used => ({ month: '', keep: {}, leaveOut: {}, called: '' })
onMounted(() => {
  const { month, keep, leaveOut, called } = route.query
  if (typeof month !== 'string') return
  used.value = { ...everything(), month, called: typeof called === 'string' ? called : '' }
  void props.attempt(async () => {
    try {
      const read = (text: unknown) => JSON.parse(typeof text === 'string' ? text : '{}') as Used['keep']
      used.value = { ...used.value!, keep: read(keep), leaveOut: read(leaveOut) }
    } catch {
      throw refusal(
        'The address does not say what ran',
        'Open Spend, narrow to what shall be priced, and choose “Estimate from this” there.',
      )
    }
  })
})
const beginFromUse = () =>
  props.attempt(async () => open(await estimateOfUse({ ...used.value!, called: narrowingText.value }, cards.value)))
</script>

<template>
  <div>
    <form class="begin" @submit.prevent="begin">
      <label>name <input v-model="name" class="field name" required maxlength="120" placeholder="what is it for?" /></label>
      <label
        >rate card
        <select v-model="cardKey" class="field">
          <option v-for="c in cards" :key="keyOf(c)" :value="keyOf(c)">
            {{ c.provider }}, {{ versionText(versionOfEntry(c)) }}, {{ c.currency }}
          </option>
        </select></label
      >
      <label
        >region
        <select v-model="region" class="field">
          <option v-for="r in card?.regions" :key="r" :value="r">{{ r }}</option>
        </select></label
      >
      <button class="button main" :disabled="!name.trim()">Start an estimate</button>
      <button type="button" class="button" :aria-expanded="used !== null" @click="used = used ? null : everything()">From what runs</button>
      <button type="button" class="button" @click="picker?.click()">Import one (JSON)</button>
      <input
        ref="picker"
        type="file"
        accept=".json"
        class="sr-only"
        tabindex="-1"
        aria-label="estimate file"
        @change="bringIn(($event.target as HTMLInputElement).files)"
      />
    </form>
    <form v-if="used" class="begin used" @submit.prevent="beginFromUse">
      <label>what ran in <input v-model="used.month" type="month" class="field" required /></label>
      <span class="note">{{
        narrowingText
          ? `keeping ${narrowingText}`
          : 'everything; to take a part of it, narrow to it under Spend and choose “Estimate from this” there'
      }}</span>
      <button class="button main" :disabled="!used.month">Start with its quantities</button>
    </form>
  </div>
</template>

<style scoped>
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
  margin: 10px 0 14px;
}
.begin label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-3);
}
.used {
  align-items: center;
}
.name {
  width: 260px;
}
</style>
