<script setup lang="ts">
import { onClickOutside, onKeyStroke } from '@vueuse/core'

/** What one can do with any value: opens where the value is. */
const spend = useSpend()
const actions = useSpendActions()
const { options } = useDimensionOptions()
const box = useTemplateRef<HTMLElement>('box')
const splitting = ref(false)
let cameFrom: HTMLElement | null = null

const dimensions = computed(() => options.value.filter(o => o.value !== spend.menu?.target.dimension))
const place = computed(() => {
  if (!spend.menu) return {}
  const { left, bottom, top } = spend.menu.at
  const [width, height] = splitting.value ? [346, 380] : [240, 216]
  return {
    left: `${Math.max(8, Math.min(left, window.innerWidth - width - 10))}px`,
    top: `${bottom + height > window.innerHeight ? Math.max(8, top - height) : bottom + 4}px`,
    width: `${width}px`,
  }
})

function close() {
  spend.menu = null
  cameFrom?.focus()
}
onClickOutside(box, () => {
  spend.menu = null
})
onKeyStroke('Escape', event => {
  if (!spend.menu) return
  event.preventDefault()
  event.stopImmediatePropagation()
  close()
})
watch(
  () => spend.menu,
  async menu => {
    splitting.value = menu?.splitting ?? false
    if (!menu) return
    cameFrom = document.activeElement as HTMLElement | null
    await nextTick()
    box.value?.querySelector<HTMLElement>('button, input')?.focus()
  },
)

function move(step: number) {
  if (splitting.value) return
  const buttons = [...(box.value?.querySelectorAll('button') ?? [])]
  const at = buttons.indexOf(document.activeElement as HTMLButtonElement)
  buttons[(at + step + buttons.length) % buttons.length]?.focus()
}

async function startSplit() {
  splitting.value = true
  await nextTick()
  box.value?.querySelector('input')?.focus()
}

function act(key: string) {
  const target = spend.menu!.target
  if (key === 'k') actions.keep(target)
  else if (key === 'l') actions.leaveOut(target)
  else if (key === 's') void startSplit()
  else if (key === 'o') actions.open(target)
  else if (key === 'z') actions.lookInto(spend.menu!.start!)
  else if (key === 'w') {
    spend.menu = null
    void spend.openWorkings(target)
  }
}
const choices = computed(() => [
  { key: 'k', label: `Keep ${spend.menu?.target.label ?? ''}` },
  { key: 'l', label: 'Leave out' },
  { key: 's', label: 'Split it by…' },
  ...(spend.menu?.target.value === null ? [] : [{ key: 'o', label: 'Open its page' }]),
  { key: 'w', label: 'Workings' },
  ...(spend.menu?.start ? [{ key: 'z', label: `Look into ${startText(spend.menu.start, spend.shown!.grain)}` }] : []),
])
const onKey = (event: KeyboardEvent) => {
  if (!splitting.value && choices.value.some(c => c.key === event.key)) {
    event.preventDefault()
    act(event.key)
  }
}
</script>

<template>
  <div
    v-if="spend.menu"
    ref="box"
    class="sheetlike menu"
    :role="splitting ? 'dialog' : 'menu'"
    :aria-label="splitting ? `Split ${spend.menu.target.label} by` : spend.menu.target.label"
    :style="place"
    @keydown.down.prevent="move(1)"
    @keydown.up.prevent="move(-1)"
    @keydown="onKey"
  >
    <template v-if="!splitting">
      <button v-for="choice in choices" :key="choice.key" role="menuitem" class="option" @click="act(choice.key)">
        <span class="text">{{ choice.label }}</span><span class="key">{{ choice.key }}</span>
      </button>
    </template>
    <OptionList v-else :options="dimensions" label="what to split by" @choose="actions.splitInto(spend.menu.target, $event)" />
  </div>
</template>

<style scoped>
.menu {
  position: fixed;
  z-index: 50;
}
.text {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
