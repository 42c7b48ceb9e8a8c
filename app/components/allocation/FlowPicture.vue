<script setup lang="ts">
import { flowLinks, type FlowLink } from '../../../core/allocation/flow-links'
import { branchOf } from '../../../core/allocation/tree'
import { monthEnd, monthStart } from '../../../core/time/day'
import { flowLayout } from '../../utils/flow-layout'

/** Where the bill comes from and where it lands: sources, then direct, pool and unallocated, then the branches of the tree. */
const props = defineProps<{ currency: string }>()
const allocation = useAllocation()
const HEIGHT = 230

const branches = computed(() => {
  const plan = allocation.plan!
  return plan.centres.filter(c => branchOf(plan.centres, c.id) === c.id && c.parent !== null)
})
const tone = (id: string) => `var(--c${(branches.value.findIndex(b => b.id === id) % 8) + 1})`

const picture = computed(() => {
  const plan = allocation.plan!
  const links = flowLinks(allocation.settled!, plan, props.currency)
  const toneOfLink = ({ from, to }: FlowLink) => {
    if (from === 'unallocated' || to === 'unallocated') return 'hatch'
    return to.startsWith('to ') ? tone(to.slice(3)) : 'var(--line-strong)'
  }
  const given = (provider: string) => links.filter(({ from }) => from === provider).reduce((sum, { amount }) => sum + Number(amount), 0)
  const providers = [...new Set(links.flatMap(({ from }) => (from.startsWith('from ') ? [from] : [])))].sort((a, b) => given(b) - given(a))
  const columns = [
    { x: 130, nodes: providers.map(key => ({ key, label: key === 'from null' ? 'no provider' : key.slice(5), tone: 'var(--ink-2)' })) },
    {
      x: 350,
      nodes: [
        { key: 'direct', label: 'direct', tone: 'var(--ink-2)' },
        ...plan.pools.map(p => ({ key: `pool ${p.id}`, label: `${p.name}, shared`, tone: 'var(--ink-2)' })),
        { key: 'unallocated', label: 'unallocated', tone: 'hatch' },
      ],
    },
    {
      x: 640,
      nodes: [
        ...branches.value.map(b => ({ key: `to ${b.id}`, label: b.name, tone: tone(b.id) })),
        ...plan.centres.filter(c => c.parent === null).map(c => ({ key: `to ${c.id}`, label: c.name, tone: 'var(--ink-2)' })),
        { key: 'to unallocated', label: 'unallocated', tone: 'hatch' },
      ],
    },
  ]
  const drawn = flowLayout(
    columns,
    links.map(link => ({ ...link, amount: Number(link.amount), tone: toneOfLink(link) })),
    HEIGHT,
  )
  const labels = new Map(columns.flatMap(({ nodes }) => nodes.map(({ key, label }) => [key, label] as const)))
  // what is below zero has no width, and stands in the table
  const rows = links.map(({ from, to, amount }) => ({ from: labels.get(from), to: labels.get(to), amount }))
  return { ...drawn, rows }
})
const emit = defineEmits<{ centre: [string]; pool: [string]; unallocated: [] }>()
const router = useRouter()
/** Where a node leads: to its statement, its pool, the queue, or its charges; null where it leads nowhere further. */
function lead(key: string): (() => unknown) | null {
  if (key.startsWith('to ') && key !== 'to unallocated') return () => emit('centre', key.slice(3))
  if (key.startsWith('pool ')) return () => emit('pool', key.slice(5))
  if (key === 'unallocated' || key === 'to unallocated') return () => emit('unallocated')
  if (!key.startsWith('from ') || key === 'from null') return null
  const { month, measure } = allocation.question!
  const query = writeSentence({
    ...readSentence({}),
    ...{ measure, basis: 'billing' as const, currency: props.currency, splitBy: ['ServiceName'] },
    ...{ period: { start: monthStart(month), end: monthEnd(month) }, keep: { ProviderName: [key.slice(5)] } },
  })
  return () => router.push({ path: '/spend', query })
}
const isTable = ref(false)
/** Where the labels of a column stand: beside their nodes, and no two in one another. */
const labelAt = computed(() => {
  const at = new Map<string, number>()
  for (const x of new Set(picture.value.nodes.map(node => node.x))) {
    let last = -Infinity
    for (const node of picture.value.nodes.filter(one => one.x === x)) {
      last = Math.max(last + 13, node.y + node.height / 2 + 4)
      at.set(node.key, last)
    }
  }
  return at
})
const fill = (colour: string) => (colour === 'hatch' ? 'url(#unallocated-hatch)' : colour)
</script>

<template>
  <div class="shown">
    <button class="link minor toggle" :class="{ above: !isTable }" :aria-expanded="isTable" @click="isTable = !isTable">
      {{ isTable ? 'As a picture' : 'As a table' }}
    </button>
    <table v-if="isTable" class="ledger" data-testid="flow-table">
      <thead>
        <tr>
          <th>from</th>
          <th>to</th>
          <th class="n">{{ currency }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in picture.rows" :key="i">
          <td>{{ row.from }}</td>
          <td>{{ row.to }}</td>
          <td class="n">{{ money(row.amount, currency) }}</td>
        </tr>
      </tbody>
    </table>
    <svg
      v-else
      :viewBox="`0 -6 830 ${HEIGHT + 14}`"
      class="flow"
      role="group"
      :aria-label="`Where the ${currency} bill comes from and where it lands`"
    >
      <defs>
        <pattern id="unallocated-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--paper)" />
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--ink-3)" stroke-width="2.2" />
        </pattern>
      </defs>
      <path
        v-for="band in picture.bands"
        :key="band.key"
        :d="band.path"
        :fill="fill(band.tone)"
        :opacity="band.tone === 'hatch' ? 0.55 : 0.36"
      >
        <title>{{ band.title }}</title>
      </path>
      <g
        v-for="node in picture.nodes"
        :key="node.key"
        :class="{ leads: lead(node.key) }"
        :role="lead(node.key) ? 'button' : undefined"
        :tabindex="lead(node.key) ? 0 : undefined"
        :aria-label="`${node.label}, ${whole(node.amount.toFixed(6))} ${currency}`"
        @click="lead(node.key)?.()"
        @keydown.enter.space.prevent="lead(node.key)?.()"
      >
        <rect :x="node.x" :y="node.y" width="10" :height="node.height" :fill="fill(node.tone)" />
        <text v-if="node.x === 130" :x="node.x - 8" :y="labelAt.get(node.key)" text-anchor="end">{{ node.label }}</text>
        <text v-else :x="node.x + 16" :y="labelAt.get(node.key)" class="halo">
          {{ node.label }}
          <tspan class="amount">{{ whole(node.amount.toFixed(6)) }}</tspan>
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.shown {
  position: relative;
}
.toggle {
  display: block;
  margin-left: auto;
}
/* the picture leaves room in its corner */
.above {
  position: absolute;
  right: 0;
  top: -4px;
}
.leads {
  cursor: pointer;
}
.leads:hover text {
  text-decoration: underline;
}
.flow {
  width: 100%;
  max-height: 250px;
  display: block;
}
text {
  font: 500 12px var(--sans);
  fill: var(--ink);
}
.halo {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.amount {
  fill: var(--ink-2);
  font-weight: 400;
}
</style>
