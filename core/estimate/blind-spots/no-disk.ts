import { counted, hasRow, partOf, rowsOf, sumOf, type BlindSpot } from './blind-spot'

/** Servers, but no disk for them. */
export const noDisk: BlindSpot = {
  id: 'no-disk',
  title: 'Servers without a disk',
  find(seen) {
    const servers = rowsOf(seen, 'server')
    if (!servers.length || hasRow(seen, 'disk')) return null
    const count = sumOf(servers, 'count').plus(sumOf(servers, 'peakCount'))
    return {
      reason: `${counted(count, 'server has', 'servers have')} to start from something; a disk is charged by its size, also while the server is off`,
      fix: { add: { part: partOf(seen, servers[0]!), kind: 'disk', inputs: { storageGb: '80', count: count.toFixed() } } },
    }
  },
}
