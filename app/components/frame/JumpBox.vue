<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { jumpReply, type JumpFound } from '../../../shared/contracts/jump'

/** Jumps anywhere: a place, a saved sentence, an account, service, resource, SKU, cost centre or estimate, by name or id. */
const open = ref(false)
const text = ref('')
const found = ref<Target[]>([])
const at = ref(0)
const router = useRouter()
const session = useSession()
const field = useTemplateRef<HTMLInputElement>('field')
const list = useTemplateRef<HTMLElement>('list')
const { attempt, problem, busy } = useAttempt()
type Target = {
  key: string
  name: string
  kind: string
  beside: string | null
  to: { path: string; query?: Record<string, string | string[]> }
}

/** Every page of every place, and those that belong to none. */
const pages = computed(() => {
  const all: PlacePage[] = [...placesFor(session.seesAll).flatMap(place => place.pages), { to: '/api', label: 'HTTP interface' }]
  return all.map(({ to, label, name }): Target => ({ key: to, name: name ?? label, kind: 'place', beside: null, to: { path: to } }))
})

function targetOf(place: JumpFound): Target {
  const key = `${place.kind} ${place.dimension ?? ''} ${place.id}`
  const common = { key, name: place.name, beside: place.beside }
  if (place.kind === 'sentence') return { ...common, kind: 'saved sentence', to: { path: '/spend', query: place.query } }
  if (place.kind === 'estimate') return { ...common, kind: 'estimate', to: { path: `/estimates/${place.id}` } }
  if (place.kind === 'cost centre') return { ...common, kind: 'cost centre', to: { path: '/allocation', query: { centre: place.id } } }
  const dimension = place.dimension!
  return {
    ...common,
    kind: dimensionLabel(dimension),
    to:
      dimension === 'ResourceId'
        ? { path: '/spend/resource', query: { id: place.id } }
        : { path: '/spend/of', query: { dimension, value: place.id } },
  }
}

let asked = 0
watch(
  text,
  async sought => {
    at.value = 0
    const mine = ++asked
    const words = sought.trim().toLowerCase()
    const own = pages.value.filter(place => place.name.toLowerCase().includes(words))
    if (!words) {
      found.value = own
      return
    }
    await attempt(async () => {
      const reply = await client.get(`jump?q=${encodeURIComponent(words)}`, jumpReply)
      if (mine === asked) found.value = [...own, ...reply.found.map(targetOf)]
    })
  },
  { immediate: true },
)

async function show() {
  open.value = true
  text.value = ''
  await nextTick()
  field.value?.focus()
}
onKeyStroke('k', event => {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  void show()
})
async function move(step: number) {
  at.value = Math.max(0, Math.min(found.value.length - 1, at.value + step))
  await nextTick()
  list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' })
}
function go(target = found.value[at.value]) {
  if (!target) return
  open.value = false
  void router.push(target.to)
}
</script>

<template>
  <button class="jump" aria-keyshortcuts="Control+K" @click="show">
    <span aria-hidden="true">⌕</span> Jump <span class="key">Ctrl K</span>
  </button>
  <UModal
    v-model:open="open"
    title="Jump to"
    description="A place, saved sentence, account, service, resource, SKU, cost centre or estimate, by name or id"
    :close="false"
  >
    <template #content>
      <div class="box">
        <input
          ref="field"
          v-model="text"
          class="field"
          placeholder="Name or id"
          aria-label="Jump to"
          role="combobox"
          aria-expanded="true"
          aria-controls="jump-found"
          :aria-activedescendant="found.length ? `jump-${at}` : undefined"
          @keydown.down.prevent="move(1)"
          @keydown.up.prevent="move(-1)"
          @keydown.enter.prevent="go()"
        />
        <div id="jump-found" ref="list" class="found" role="listbox" aria-label="Found">
          <div
            v-for="(target, i) in found"
            :id="`jump-${i}`"
            :key="target.key"
            role="option"
            :aria-selected="i === at"
            class="option"
            :class="{ on: i === at }"
            @click="go(target)"
            @mousemove="at = i"
          >
            <span class="name">{{ target.name }}</span><span v-if="target.beside" class="minor beside">{{ target.beside }}</span
            ><span class="minor kind">{{ target.kind }}</span>
          </div>
        </div>
        <p v-if="!found.length && !busy" class="minor none">No matches.</p>
        <ProblemNote v-if="problem" :problem="problem" />
      </div>
    </template>
  </UModal>
</template>

<style scoped>
.jump {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
  min-height: 28px;
  padding: 0 8px;
  border-radius: 4px;
}
.jump:hover {
  background: var(--act-soft);
  color: var(--ink);
}
.box {
  padding: 12px;
}
.field {
  width: 100%;
  min-height: 34px;
  font-size: 15px;
}
.found {
  max-height: 380px;
  overflow: auto;
  margin-top: 8px;
}
.option {
  cursor: pointer;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.beside {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.kind {
  margin-left: auto;
  white-space: nowrap;
}
.none {
  padding: 8px 10px;
}
@media (max-width: 800px) {
  .jump .key {
    display: none;
  }
}
</style>
