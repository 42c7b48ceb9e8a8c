<script setup lang="ts">
import { isSameLookup } from '../../../core/spend/lookup-difference'

/** What a file of a lookup or of business measures would change, and what would move in each month, before it is taken. */
const emit = defineEmits<{ use: [] }>()
const store = useFactsFile()
const review = computed(() => store.review!)
const isSame = computed(() =>
  review.value.kind === 'lookup'
    ? isSameLookup(review.value.difference)
    : review.value.measures.every(({ added, changed }) => !added && !changed),
)
/** Cost centres of the file that are not there: nothing goes by what is told of them. */
const unknown = computed(() => {
  if (review.value.kind !== 'measures' || !store.centres.length) return []
  const known = new Set(store.centres.map(({ id }) => id))
  const told = review.value.measures.flatMap(({ tree, values }) => (tree === null ? values.map(({ centre }) => centre) : []))
  return [...new Set(told)].filter(centre => !known.has(centre))
})
const lines = computed(() => {
  if (review.value.kind !== 'lookup') return []
  const { added, changed, removed, fields } = review.value.difference
  const ofFields = fields.added.length || fields.removed.length ? [{ what: 'fields', ...fields, changed: [] }] : []
  return [{ what: 'entries', added, changed, removed }, ...ofFields]
})
</script>

<template>
  <FileReview
    label="Review of a file"
    :is-same="isSame"
    :problem="store.problem"
    :busy="store.busy"
    :months="store.months"
    :targets="store.targets"
    :note="
      review.kind === 'lookup' ? 'What is there now stays as an earlier state.' : 'What was told for other cost centres and days stays.'
    "
    @use="emit('use')"
    @leave="store.leave()"
    @again="store.again()"
  >
    <template #heading>
      «{{ review.file }}»
      <template v-if="review.kind === 'lookup'"
        >beside the lookup «{{ review.name }}», saved by {{ review.current.who }}, {{ timeText(review.current.savedAt) }}</template
      >
    </template>
    <ChangedNames v-if="review.kind === 'lookup'" :lines="lines">
      <tr v-if="review.difference.by">
        <td>goes by</td>
        <td colspan="3">{{ review.difference.by.after }}, not {{ review.difference.by.before }} any more</td>
      </tr>
    </ChangedNames>
    <p v-if="unknown.length" class="warn">Not among the cost centres: {{ unknown.join(', ') }}.</p>
    <table v-if="review.kind === 'measures'" class="ledger">
      <thead>
        <tr>
          <th>measure</th>
          <th class="n">values in the file</th>
          <th class="n">added</th>
          <th class="n">changed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in review.measures" :key="one.name">
          <td>{{ one.name }}</td>
          <td class="n">{{ count(one.values.length) }}</td>
          <td class="n">{{ count(one.added) }}</td>
          <td class="n" :class="{ warn: one.changed }">{{ count(one.changed) }}</td>
        </tr>
      </tbody>
    </table>
  </FileReview>
</template>
