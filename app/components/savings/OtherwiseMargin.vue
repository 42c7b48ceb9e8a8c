<script setup lang="ts">
import { isAboveZero } from '../../../core/money/amount-text'
import type { ResourceOtherwiseView, WayView } from '../../../shared/contracts/savings-own'

/** One way that things could be charged, resource by resource: how it is worked out, and for which of them it is chosen. */
const props = defineProps<{ way: WayView; currency: string; busy: boolean; attempt: (act: () => Promise<void>) => Promise<unknown> }>()
defineEmits<{ close: [] }>()
const otherwise = useOtherwise()
const each = computed(() => props.way.each ?? [])
const saves = ({ saving }: ResourceOtherwiseView) => saving !== null && isAboveZero(saving)
const ticked = ref<string[]>([])
const shown = ref<string | null>(null)
watch(
  () => props.way.key,
  () => {
    ticked.value = []
    shown.value = each.value.length === 1 ? each.value[0]!.resourceId : null
  },
  { immediate: true },
)
const open = computed(() => each.value.filter(one => saves(one) && !one.isChosen))
const taken = computed(() => each.value.filter(({ isChosen }) => isChosen))
/** What is chosen: those that are ticked, or where none is all that can be. */
const toChoose = computed(() => open.value.filter(({ resourceId }) => !ticked.value.length || ticked.value.includes(resourceId)))
const choose = (list: readonly ResourceOtherwiseView[], isChosen: boolean) =>
  props.attempt(async () => {
    await otherwise.choose(
      list.map(({ resourceId }) => resourceId),
      isChosen,
    )
    ticked.value = []
  })
</script>

<template>
  <aside class="aside" :aria-label="way.to">
    <div class="top">
      <h2 class="heading">{{ way.to }}</h2>
      <button class="link close" @click="$emit('close')">close</button>
    </div>
    <p class="minor">{{ [way.kind, way.gives].filter(Boolean).join(' · ') }}</p>
    <div class="row">
      <button v-if="open.length" class="button main" :disabled="busy || !toChoose.length" @click="choose(toChoose, true)">
        Choose for {{ toChoose.length === 1 ? toChoose[0]!.resourceName : `${count(toChoose.length)} resources` }}
      </button>
      <button v-if="taken.length" class="button" :disabled="busy" @click="choose(taken, false)">Undo the choice</button>
    </div>
    <p v-if="otherwise.told" class="note" role="status">
      {{
        otherwise.told.isChosen
          ? `${otherwise.told.resources === 1 ? 'It is an opportunity' : `They are ${count(otherwise.told.resources)} opportunities`} now:`
          : 'Undone.'
      }}
      <NuxtLink v-if="otherwise.told.isChosen" class="link" :to="{ path: '/savings', query: { kind: 'chosen-otherwise', by: 'owner' } }"
        >see them under Savings, and share them with their owners</NuxtLink
      >
    </p>
    <table class="ledger">
      <thead>
        <tr>
          <th />
          <th>resource</th>
          <th class="n">now</th>
          <th class="n">then</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="one in each" :key="one.resourceId">
          <tr>
            <td>
              <input
                v-if="saves(one) && !one.isChosen"
                v-model="ticked"
                type="checkbox"
                :value="one.resourceId"
                :aria-label="one.resourceName"
              />
            </td>
            <td>
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: one.resourceId } }">{{ one.resourceName }}</NuxtLink>
              <span class="minor line"
                >{{ one.subAccountName }}, {{ one.owner ?? 'nobody’s' }}<b v-if="one.isChosen" class="good">, chosen</b></span
              >
              <span v-if="one.why" class="minor line">{{ one.why }}</span>
              <span v-for="lack in one.lacks" :key="lack" class="warn line">not priced: {{ lack }}</span>
            </td>
            <td class="n">{{ money(one.now, currency) }}</td>
            <td class="n">
              <button
                v-if="one.working"
                class="link"
                :aria-expanded="shown === one.resourceId"
                :aria-label="`Workings of ${one.resourceName}`"
                @click="shown = shown === one.resourceId ? null : one.resourceId"
              >
                {{ money(one.then!, currency) }}
              </button>
              <template v-else>not offered</template>
            </td>
          </tr>
          <tr v-if="shown === one.resourceId && one.working">
            <td colspan="4"><WorkingsTree :working="one.working" :currency="currency" /></td>
          </tr>
        </template>
      </tbody>
    </table>
  </aside>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  margin: 8px 0;
}
.line {
  display: block;
}
</style>
