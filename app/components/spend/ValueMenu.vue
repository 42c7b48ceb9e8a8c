<script setup lang="ts">
import { onClickOutside, onKeyStroke } from '@vueuse/core'

/** What one can do with any value: opens where the value is. */
const spend = useSpend()
const data = useData()
const actions = useSpendActions()
const box = useTemplateRef<HTMLElement>('box')
const splitting = ref(false)
let cameFrom: HTMLElement | null = null

const dimensions = computed(() => [...usualDimensions, ...(data.facts?.tags ?? [])].filter(d => d !== spend.menu?.target.dimension && (!data.facts || d.startsWith('Tags/') || data.facts.columns.includes(d))))
const place = computed(() => {
  if (!spend.menu) return {}
  const { left, bottom, top } = spend.menu.at
  const height = splitting.value ? 340 : 170
  return { left: `${Math.min(left, window.innerWidth - 250)}px`, top: `${bottom + height > window.innerHeight ? Math.max(8, top - height) : bottom + 4}px` }
})

function close() {
  spend.menu = null
  cameFrom?.focus()
}
onClickOutside(box, () => {
  spend.menu = null
})
onKeyStroke('Escape', (event) => {
  if (!spend.menu) return
  event.preventDefault()
  event.stopImmediatePropagation()
  close()
})
watch(() => spend.menu, async (menu) => {
  splitting.value = false
  if (!menu) return
  cameFrom = document.activeElement as HTMLElement | null
  await nextTick()
  box.value?.querySelector('button')?.focus()
})

function move(step: number) {
  const buttons = [...box.value?.querySelectorAll('button') ?? []]
  const at = buttons.indexOf(document.activeElement as HTMLButtonElement)
  buttons[(at + step + buttons.length) % buttons.length]?.focus()
}

async function startSplit() {
  splitting.value = true
  await nextTick()
  box.value?.querySelector('button')?.focus()
}

function act(key: string) {
  const target = spend.menu!.target
  if (key === 'k') actions.keep(target)
  else if (key === 'l') actions.leaveOut(target)
  else if (key === 's') void startSplit()
  else if (key === 'w') {
    spend.menu = null
    void spend.openWorkings(target)
  }
}
const choices = computed(() => [{ key: 'k', label: `Keep ${spend.menu?.target.label ?? ''}` }, { key: 'l', label: 'Leave out' }, { key: 's', label: 'Split it by…' }, { key: 'w', label: 'Workings' }])
const onKey = (event: KeyboardEvent) => {
  if (!splitting.value && choices.value.some(c => c.key === event.key)) {
    event.preventDefault()
    act(event.key)
  }
}
</script>

<template>
  <div v-if="spend.menu" ref="box" class="sheetlike menu" role="menu" :aria-label="spend.menu.target.label" :style="place" @keydown.down.prevent="move(1)" @keydown.up.prevent="move(-1)" @keydown="onKey">
    <template v-if="!splitting">
      <button v-for="choice in choices" :key="choice.key" role="menuitem" class="option" @click="act(choice.key)"><span class="text">{{ choice.label }}</span><span class="key">{{ choice.key }}</span></button>
    </template>
    <template v-else>
      <button v-for="dimension in dimensions" :key="dimension" role="menuitem" class="option" @click="actions.splitInto(spend.menu.target, dimension)">{{ dimensionLabel(dimension) }}</button>
    </template>
  </div>
</template>

<style scoped>
.menu { position: fixed; z-index: 50; width: 240px; max-height: 340px; overflow: auto; }
.text { flex: 1; min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
</style>
