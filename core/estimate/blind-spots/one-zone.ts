import { rowsOf, runsMostly, valueOf, type BlindSpot } from './blind-spot'

/** Servers of one row all in one zone: a fire away from none. */
export const oneZone: BlindSpot = {
  id: 'one-zone',
  title: 'Servers in one zone only',
  find(seen) {
    const single = rowsOf(seen, 'server').filter(row => row.inputs.zones === '1' && runsMostly(seen, row))
    if (!single.length) return null
    return {
      reason: 'when the zone fails everything stops; two zones need at least two servers, and what they send each other is charged',
      fix: { set: single.map(row => ({ component: row.id, inputs: { zones: '2', ...(valueOf(row, 'count').lt(2) && { count: '2' }) } })) },
    }
  },
}
