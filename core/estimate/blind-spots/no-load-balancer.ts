import { hasRow, partOf, rowsOf, sumOf, valueOf, type BlindSpot } from './blind-spot'

/** Servers side by side, but nothing that shares the work among them. */
export const noLoadBalancer: BlindSpot = {
  id: 'no-load-balancer',
  title: 'Several servers, no load balancer',
  find(seen) {
    const several = rowsOf(seen, 'server').find(row => valueOf(row, 'count').plus(valueOf(row, 'peakCount')).gt(1))
    if (!several || hasRow(seen, 'load-balancer')) return null
    const sent = sumOf(rowsOf(seen, 'internet-transfer'), 'sentGb')
    return {
      reason: 'visitors reach several servers through a load balancer; it is charged per hour and for what it passes on',
      fix: { add: { part: partOf(seen, several), kind: 'load-balancer', inputs: { balancedGb: sent.gt(0) ? sent.toFixed() : '500' } } },
    }
  },
}
