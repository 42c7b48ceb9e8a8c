import { partOf, rowsOf, type BlindSpot } from './blind-spot'

/** Rows in several regions of a provider that send each other nothing. */
export const noRegionTransfer: BlindSpot = {
  id: 'no-region-transfer',
  title: 'Several regions, no transfer between them',
  find(seen) {
    const regions = new Map<string, Set<string>>()
    const placed = seen.priced.rows.filter(row => seen.priced.counted.has(row.id) && row.place && row.kind!.needs.length)
    for (const { place } of placed) regions.set(place!.card.provider, (regions.get(place!.card.provider) ?? new Set()).add(place!.region))
    const several = [...regions].find(([, set]) => set.size > 1)
    if (!several || rowsOf(seen, 'internal-transfer').some(row => row.inputs.over === 'to another region')) return null
    return {
      reason: `rows stand in ${[...several[1]].join(' and ')}; what they send each other is charged per GB`,
      fix: { add: { part: partOf(seen, placed[0]!), kind: 'internal-transfer', inputs: { over: 'to another region', sentGb: '200' } } },
    }
  },
}
