<script setup lang="ts">
import type { SheetItem } from '../../../core/estimate/sheet/items'

/** What there is to say about a row: what does not fit, what one should know, that it appears twice. Each with what one can do. */
defineProps<{ item: Extract<SheetItem, { is: 'said' }>; index: number; span: number }>()
const store = useEstimate()
/** Opens the place where a rate of this estimate is given. */
function giveRate(currency: string) {
  const box = document.querySelector<HTMLInputElement>(`[data-rate="${currency}"]`)
  box?.scrollIntoView({ block: 'center' })
  box?.focus()
}
</script>

<template>
  <tr :data-index="index">
    <td :colspan="span" class="said" :class="item.bad ? 'bad' : 'warn'" :role="item.bad ? 'alert' : undefined">
      <span class="words">
        {{ item.text }}
        <button v-if="item.instead" class="link" @click="store.set([item.component.id], item.instead.field, item.instead.value)">
          {{ item.instead.label }}
        </button>
        <button v-if="item.rate" class="link" @click="giveRate(item.rate)">add the rate</button>
        <template v-if="item.duplicateOf">
          <button class="link" @click="store.merge(item.duplicateOf, item.component.id)">merge them</button>
          <button class="link" @click="store.keepDuplicate(item.component.id)">leave both</button>
        </template>
      </span>
    </td>
  </tr>
</template>

<style scoped>
.said {
  padding-left: 22px !important;
  font-size: 12.5px;
}
.link {
  margin-left: 10px;
}
/* stays in sight beside columns that are scrolled to */
.words {
  position: sticky;
  left: 22px;
}
</style>
