import { partOf, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Rows spread over zones that send each other nothing. */
export const noZoneTransfer: BlindSpot = {
  id: 'no-zone-transfer',
  title: 'Several zones, no transfer between them',
  find(seen) {
    const spread = rowsOf(seen, 'server', 'database').filter(row => valueOf(row, 'zones').gt(1))
    if (!spread.length || rowsOf(seen, 'internal-transfer').some(row => row.inputs.over === 'to another zone')) return null
    return {
      reason: 'what goes from zone to zone is charged per GB in both directions: standbys, caches, calls between services',
      fix: {
        add: {
          part: partOf(seen, spread[0]!),
          kind: 'internal-transfer',
          inputs: { over: 'to another zone', sentGb: String(spread.length * 200) },
        },
      },
    }
  },
}
