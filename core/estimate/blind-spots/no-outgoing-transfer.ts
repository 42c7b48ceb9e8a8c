import { hasRow, partOf, rowsOf, sumOf, type BlindSpot } from './blind-spot'

/** Something that answers people, but nothing for what it sends them. */
export const noOutgoingTransfer: BlindSpot = {
  id: 'no-outgoing-transfer',
  title: 'No outgoing transfer',
  find(seen) {
    const senders = rowsOf(seen, 'server', 'object-storage', 'app-hosting', 'functions', 'media-encoding')
    if (!senders.length || hasRow(seen, 'internet-transfer')) return null
    const servers = sumOf(rowsOf(seen, 'server'), 'count')
    return {
      reason: 'what is sent to the internet is charged per GB and often costs more than the servers; 250 GB for each server is taken here',
      fix: {
        add: {
          part: partOf(seen, senders[0]!),
          kind: 'internet-transfer',
          inputs: { sentGb: servers.gt(2) ? servers.times(250).toFixed() : '500' },
        },
      },
    }
  },
}
