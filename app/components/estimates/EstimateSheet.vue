<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { partSums } from '../../../core/estimate/sheet/column-sums'
import type { SheetItem } from '../../../core/estimate/sheet/items'
import { sheetKey, type Sheet } from '../../composables/useSheet'

/** The sheet: rows are components, cells are edited in place, everything by keyboard. Only the rows in sight are in the page. */
const store = useEstimate()
const grid = useTemplateRef<HTMLElement>('grid')
const sheet: Sheet = useSheet(grid, index => virtual.value.scrollToIndex(index, { align: 'center' }))
provide(sheetKey, sheet)
const { items, inputColumns, figureColumns, comparing, prices, menuFor, said, focusCell, drop } = sheet

/** Every row of a component is as high as the style says: it need not be measured while one scrolls. */
const ROW_HEIGHT = 29
const top = ref(0)
onMounted(() => {
  top.value = (grid.value?.getBoundingClientRect().top ?? 0) + window.scrollY + 48
})
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: items.value.length,
    overscan: 6,
    scrollMargin: top.value,
    getItemKey: (index: number) => items.value[index]?.key ?? index,
    estimateSize: (index: number) => (items.value[index]?.is === 'opened' ? 440 : ROW_HEIGHT),
  })),
)
const visible = computed(() => virtual.value.getVirtualItems())
const before = computed(() => (visible.value.length ? visible.value[0]!.start - top.value : 0))
const after = computed(() => (visible.value.length ? virtual.value.getTotalSize() - (visible.value.at(-1)!.end - top.value) : 0))
const measure = (element: unknown) => element && virtual.value.measureElement(element as Element)
/** Columns before the amounts; the unit price gives way to the scenarios. */
const leading = computed(() => inputColumns.value.length + (comparing.value ? 0 : 1))
const span = computed(() => leading.value + figureColumns.value.length)

const sums = computed(() => partSums(store.estimate!.components, figureColumns.value, prices.value))
const itemAt = <Is extends SheetItem['is']>(index: number, is: Is) => {
  const item = items.value[index]
  return item?.is === is ? (item as Extract<SheetItem, { is: Is }>) : null
}

// the column that is looked at comes into sight; only sideways, so that nothing jumps under the hand
watch(
  () => store.scenarioId,
  async () => {
    await nextTick()
    const heading = grid.value?.querySelector('.scenario.on')?.closest('th')
    const box = heading?.closest('.sheet')
    if (!heading || !box) return
    const [own, around] = [heading.getBoundingClientRect(), box.getBoundingClientRect()]
    if (own.right > around.right) box.scrollLeft += own.right - around.right
    else if (own.left < around.left) box.scrollLeft += own.left - around.left
  },
)

async function added(id: string) {
  await focusCell({ component: id, column: 1 })
}
defineExpose({
  focusCell,
  openRow: (id: string) => {
    sheet.opened.value = id
  },
})
</script>

<template>
  <div ref="grid" class="sheet" :class="{ tight: comparing }" @paste="sheet.onPaste" @copy="sheet.onCopy">
    <table class="ledger" role="grid" aria-label="Components" :aria-rowcount="items.length + 1">
      <SheetHead />
      <tbody>
        <tr v-if="before > 0" aria-hidden="true">
          <td :colspan="span" class="space" :style="{ height: `${before}px` }" />
        </tr>
        <template v-for="place in visible" :key="String(place.key)">
          <SheetPart
            v-if="itemAt(place.index, 'part')"
            :ref="(row: unknown) => measure((row as { $el?: Element } | null)?.$el)"
            :part="itemAt(place.index, 'part')!.part"
            :sums="sums.get(itemAt(place.index, 'part')!.part) ?? []"
            :index="place.index"
            :span="leading"
          />
          <SheetRow v-else-if="itemAt(place.index, 'row')" :component="itemAt(place.index, 'row')!.component" :index="place.index" />
          <SheetSaid
            v-else-if="itemAt(place.index, 'said')"
            :ref="(row: unknown) => measure((row as { $el?: Element } | null)?.$el)"
            :item="itemAt(place.index, 'said')!"
            :index="place.index"
            :span="span"
          />
          <tr v-else-if="itemAt(place.index, 'opened')" :ref="measure" :data-index="place.index" class="openedrow">
            <td :colspan="span"><OpenedComponent :component="itemAt(place.index, 'opened')!.component" /></td>
          </tr>
        </template>
        <tr v-if="after > 0" aria-hidden="true">
          <td :colspan="span" class="space" :style="{ height: `${after}px` }" />
        </tr>
      </tbody>
      <tbody>
        <tr @dragover.prevent @drop="drop(null, store.parts.at(-1) ?? 'Workload')">
          <td :colspan="span"><ComponentAdder @added="added" @pasted="sheet.pasteText" @stays="said = `Added ${$event}`" /></td>
        </tr>
        <SheetTotals :span="leading" />
      </tbody>
    </table>
    <p v-if="said" class="note" role="status">{{ said }} <button class="link" @click="said = ''">close</button></p>
    <p class="minor keys">
      Arrows move, Shift with them selects, Enter edits or opens, Tab goes on, Esc leaves. Ctrl D copies down, Alt ↑ ↓ moves a row, Alt M
      mutes it, Alt Enter opens its menu, Delete on a name takes it out, Ctrl Z undoes. A number may have a unit or be a range: 1.5 TB,
      2,000, 650..895..1100.
    </p>
    <RowMenu v-if="menuFor" :component="menuFor" @close="menuFor = null" />
  </div>
</template>

<style scoped>
.sheet :deep(th) {
  white-space: normal;
}
.sheet :deep(th),
.sheet :deep(td) {
  padding-inline: 5px;
}
.sheet :deep(.first) {
  border-left: 1px solid var(--line-strong);
}
.sheet :deep(.good) {
  color: var(--good);
}
.sheet :deep(.bad) {
  color: var(--bad);
}
.sheet.tight :deep(table) {
  font-size: 12.5px;
}
.sheet.tight :deep(td),
.sheet.tight :deep(th) {
  padding-inline: 4px;
}
.openedrow > td,
.space {
  padding: 0 !important;
}
.space {
  border: 0;
}
.keys {
  margin-top: 6px;
}
/* hundreds of rows scroll much faster when each cell has its own border */
.sheet {
  overflow-x: auto;
  position: relative;
}
.sheet :deep(table) {
  border-collapse: separate;
  border-spacing: 0;
}
</style>
