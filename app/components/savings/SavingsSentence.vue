<script setup lang="ts">
import { groupings, orders, type GroupedBy, type ListOrder } from '../../../core/opportunity/grouped'
import { NO_CENTRE, stateChoices, type StateChoice } from '../../utils/savings-list'

/** What the list shows, as a Sentence; each choice goes into the page's address. */
const savings = useSavings()
const emit = defineEmits<{ go: [Record<string, string | undefined>] }>()
const narrowing = savings.narrowing
const EVERYTHING = ''

const detectorOptions = computed(() => [
  { value: EVERYTHING, label: 'everything that can be saved' },
  ...(savings.state?.finders ?? []).map(({ detector, label, found }) => ({ value: detector, label, note: count(found) })),
])
const centreOptions = computed(() => {
  const all = savings.state?.opportunities ?? []
  const names = [...new Set(all.flatMap(({ centre }) => (centre === null ? [] : [centre])))].sort()
  const none = all.some(({ centre }) => centre === null) ? [{ value: NO_CENTRE, label: 'no cost centre' }] : []
  return [{ value: EVERYTHING, label: 'all cost centres' }, ...names.map(value => ({ value, label: value })), ...none]
})
const byWords: Record<GroupedBy, string> = {
  detectorLabel: 'by kind',
  owner: 'by owner',
  centre: 'by cost centre',
  subAccountName: 'by sub account',
  service: 'by service',
  risk: 'by risk',
  confidence: 'by what it rests on',
  each: 'one by one',
}
const byOptions = groupings.map(value => ({ value, label: byWords[value] }))
const orderWords: Record<ListOrder, string> = {
  'per hour': 'most per hour of work first',
  saving: 'largest saving first',
  work: 'least work first',
}
const orderOptions = orders.map(value => ({ value, label: orderWords[value] }))
const labelOf = <T extends string>(options: readonly { value: T; label: string }[], value: T) =>
  options.find(option => option.value === value)?.label ?? value
</script>

<template>
  <h1 class="sentence">
    Show
    <SentenceChoice
      label="what"
      :options="detectorOptions"
      :chosen="narrowing.detector ?? EVERYTHING"
      :text="labelOf(detectorOptions, narrowing.detector ?? EVERYTHING)"
      @choose="value => emit('go', { kind: value || undefined })"
    />
    in
    <SentenceChoice
      label="where"
      :options="centreOptions"
      :chosen="narrowing.centre ?? EVERYTHING"
      :text="labelOf(centreOptions, narrowing.centre ?? EVERYTHING)"
      @choose="value => emit('go', { centre: value || undefined })"
    />,
    <SentenceChoice
      label="state"
      :options="[...stateChoices]"
      :chosen="narrowing.state"
      :text="labelOf<StateChoice>(stateChoices, narrowing.state)"
      @choose="value => emit('go', { state: value === 'open' ? undefined : value })"
    />,
    <SentenceChoice
      label="grouped"
      :options="byOptions"
      :chosen="narrowing.by"
      :text="byWords[narrowing.by]"
      @choose="value => emit('go', { by: value === 'detectorLabel' ? undefined : value })"
    />,
    <SentenceChoice
      label="order"
      :options="orderOptions"
      :chosen="narrowing.order"
      :text="orderWords[narrowing.order]"
      @choose="value => emit('go', { order: value === 'per hour' ? undefined : value })"
    />.
  </h1>
</template>
