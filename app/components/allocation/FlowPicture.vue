<script setup lang="ts">
import { branchOf } from '../../../core/allocation/tree'
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
  const { flows, statements } = allocation.settled!
  const links = new Map<string, { from: string; to: string; amount: number; tone: string }>()
  const add = (from: string, to: string, amount: string, colour: string) => {
    const key = `${from}>${to}`
    const known = links.get(key) ?? { from, to, amount: 0, tone: colour }
    known.amount += Number(amount)
    links.set(key, known)
  }
  for (const flow of flows.filter(f => f.currency === props.currency)) {
    const middle = flow.target === null ? 'unallocated' : allocation.isPool(flow.target) ? `pool ${flow.target}` : 'direct'
    add(`from ${flow.provider}`, middle, flow.amount, middle === 'unallocated' ? 'hatch' : 'var(--line-strong)')
  }
  for (const statement of statements.filter(s => s.currency === props.currency)) {
    const branch = branchOf(plan.centres, statement.centre)
    add('direct', `to ${branch}`, statement.direct, tone(branch))
    for (const line of statement.lines)
      if (line.kind === 'share') add(`pool ${plan.pools.find(p => p.name === line.pool)?.id}`, `to ${branch}`, line.amount, tone(branch))
  }
  const unallocated = allocation.proofOf(props.currency)?.unallocated ?? '0'
  add('unallocated', 'to unallocated', unallocated, 'hatch')
  const providers = [...new Set(flows.filter(f => f.currency === props.currency).map(f => f.provider))].sort((a, b) => sumOf(b) - sumOf(a))
  function sumOf(provider: string | null) {
    return flows.filter(f => f.provider === provider && f.currency === props.currency).reduce((n, f) => n + Number(f.amount), 0)
  }
  return flowLayout(
    [
      { x: 130, nodes: providers.map(p => ({ key: `from ${p}`, label: p ?? 'no provider', tone: 'var(--ink-2)' })) },
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
    ],
    [...links.values()],
    HEIGHT,
  )
})
const fill = (colour: string) => (colour === 'hatch' ? 'url(#unallocated-hatch)' : colour)
</script>

<template>
  <svg
    :viewBox="`0 -6 830 ${HEIGHT + 14}`"
    class="flow"
    role="img"
    :aria-label="`Where the ${currency} bill comes from and where it lands; the figures are in the tables below`"
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
    <g v-for="node in picture.nodes" :key="node.key">
      <rect :x="node.x" :y="node.y" width="10" :height="node.height" :fill="fill(node.tone)" />
      <text v-if="node.x === 130" :x="node.x - 8" :y="node.y + node.height / 2 + 4" text-anchor="end">{{ node.label }}</text>
      <text v-else :x="node.x + 16" :y="node.y + node.height / 2 + 4" class="halo">
        {{ node.label }}
        <tspan class="amount">{{ whole(node.amount.toFixed(6)) }}</tspan>
      </text>
    </g>
  </svg>
</template>

<style scoped>
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
