import type { BlindSpot } from './blind-spot'

/** Something that answers people, but nothing for what it sends them. */
export const noOutgoingTransfer: BlindSpot = {
  id: 'no-outgoing-transfer',
  find({ components }) {
    const senders = components.filter(c => c.kind === 'server' || c.kind === 'object-storage')
    if (!senders.length || components.some(c => c.kind === 'internet-transfer')) return null
    return { title: 'No outgoing transfer', reason: 'what is sent to the internet is charged per GB and often costs more than the servers', add: { part: senders[0]!.part, kind: 'internet-transfer', inputs: { sentGb: '500' } } }
  },
}
