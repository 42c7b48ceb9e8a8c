<script setup lang="ts">
import { likelySpellings } from '../../../core/spend/spellings'
import { z } from 'zod'

/** The values of a tag: those that look like one another, those treated as one, and all with their amounts. */
const { tag, values, aliases } = defineProps<{
  tag: string
  currency: string
  values: readonly { value: string; amount: string }[]
  /** What a spelling counts as. */
  aliases: Readonly<Record<string, string>>
}>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { attempt, problem } = useAttempt()

const groups = computed(() =>
  likelySpellings(values.map(v => v.value)).map(({ values: spellings }) => {
    const list = spellings.map(value => values.find(v => v.value === value)!).sort((a, b) => Number(b.amount) - Number(a.amount))
    return { list, largest: list[0]!.value }
  }),
)
/** Which spelling of a group is chosen, by its largest; that one where nobody has chosen. */
const chosen = reactive<Record<string, string>>({})
const setAlias = (spellings: string[], as: string | null) =>
  attempt(async () => {
    await client.send(
      'POST',
      'spend/aliases',
      { dimension: `Tags/${tag}`, spellings, as },
      z.object({ aliases: z.record(z.string(), z.string()) }),
    )
    emit('changed')
  })
const treatAsOne = ({ list, largest }: (typeof groups.value)[number]) => {
  const as = chosen[largest] ?? largest
  return setAlias(
    list.map(v => v.value).filter(v => v !== as),
    as,
  )
}
</script>

<template>
  <section aria-label="Spellings">
    <h2 class="heading">Spellings of the {{ tag }} tag</h2>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!groups.length && !Object.keys(aliases).length" class="note">No two values look like one.</p>
    <div v-for="group in groups" :key="group.largest" class="group">
      <table class="ledger">
        <tbody>
          <tr v-for="{ value, amount } in group.list" :key="value">
            <td>{{ value }}</td>
            <td class="n">{{ money(amount, currency) }}</td>
            <td class="n">
              <label
                ><input
                  type="radio"
                  :name="`as ${group.largest}`"
                  :checked="value === (chosen[group.largest] ?? group.largest)"
                  @change="chosen[group.largest] = value"
                />
                use this</label
              >
            </td>
          </tr>
        </tbody>
      </table>
      <button v-if="session.seesAll" class="button" @click="treatAsOne(group)">
        Treat as one: {{ chosen[group.largest] ?? group.largest }}
      </button>
    </div>
    <template v-if="Object.keys(aliases).length">
      <h3 class="heading">Treated as one</h3>
      <table class="ledger">
        <tbody>
          <tr v-for="(as, spelling) in aliases" :key="spelling">
            <td>{{ spelling }}</td>
            <td>
              counts as <b>{{ as }}</b>
            </td>
            <td class="n"><button class="link" @click="setAlias([spelling], null)">undo</button></td>
          </tr>
        </tbody>
      </table>
      <p class="minor">Holds for all that is loaded, the past included, and changes no charge.</p>
    </template>
    <h3 class="heading">All values</h3>
    <div class="values" tabindex="0" role="group" aria-label="all values">
      <table class="ledger">
        <tbody>
          <tr v-for="{ value, amount } in values" :key="value">
            <td>
              <NuxtLink class="link" :to="{ path: '/spend', query: { keep: `Tags/${tag}=${value}` } }">{{ value }}</NuxtLink>
            </td>
            <td class="n">{{ money(amount, currency) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.group {
  margin-bottom: 14px;
}
.group .button {
  margin-top: 6px;
}
.values {
  max-height: 300px;
  overflow: auto;
}
.heading {
  margin: 16px 0 4px;
}
.heading:first-child {
  margin-top: 0;
}
</style>
