import { Decimal } from '../../money/decimal'
import { hasRow, partOf, rowsOf, sumOf, valueOf, type BlindSpot } from './blind-spot'

/** Servers that reach outside, but no gateway that lets them. */
export const noGateway: BlindSpot = {
  id: 'no-gateway',
  title: 'Private servers, no gateway',
  find(seen) {
    const servers = rowsOf(seen, 'server', 'database')
    if (!rowsOf(seen, 'server').length || hasRow(seen, 'gateway')) return null
    const zones = servers.reduce((most, row) => (valueOf(row, 'zones').gt(most) ? valueOf(row, 'zones') : most), new Decimal(1))
    return {
      reason: 'servers in a private network fetch their updates through a gateway; its hours are charged even when nothing passes',
      fix: {
        add: {
          part: partOf(seen, servers[0]!),
          kind: 'gateway',
          inputs: { count: zones.toFixed(), passedGb: sumOf(rowsOf(seen, 'server'), 'count').times(20).toFixed() },
        },
      },
    }
  },
}
