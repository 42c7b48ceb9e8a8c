import { about, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Colder classes charge for fetching, and nothing is fetched. */
export const noRetrieval: BlindSpot = {
  id: 'no-retrieval',
  title: 'Cold objects that are never fetched',
  find(seen) {
    const cold = rowsOf(seen, 'object-storage').filter(row => valueOf(row, 'retrievedGb').eq(0) && row.place!.card.prices.some(line => line.meter === 'object-retrieval-gb' && line.variant === row.inputs.class && line.region === row.place!.region))
    if (!cold.length) return null
    return { reason: 'the colder class charges for every GB that is fetched; a twentieth a month is taken here', fix: { set: cold.map(row => ({ component: row.id, inputs: { retrievedGb: about(valueOf(row, 'storageGb').div(20)) } })) } }
  },
}
