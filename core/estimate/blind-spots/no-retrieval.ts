import type { PricedComponent } from '../pricing/price-estimate'
import { about, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Colder classes charge for fetching, and nothing is fetched. */
export const noRetrieval: BlindSpot = {
  id: 'no-retrieval',
  title: 'Cold objects that are never fetched',
  find(seen) {
    const charged = (row: PricedComponent, kinds: string[]) =>
      kinds.some(kind =>
        row.place!.card.prices.some(
          line => line.meter === 'object-retrieval-gb' && line.variant === kind && line.region === row.place!.region,
        ),
      )
    const unread = rowsOf(seen, 'object-archive').filter(
      row =>
        valueOf(row, 'readPercent').eq(0) &&
        charged(
          row,
          ['class', 'class2', 'class3'].map(name => row.inputs[name]!),
        ),
    )
    const cold = rowsOf(seen, 'object-storage').filter(row => valueOf(row, 'retrievedGb').eq(0) && charged(row, [row.inputs.class!]))
    if (!cold.length && !unread.length) return null
    return {
      reason: 'the colder class charges for every GB that is fetched; a twentieth a month is taken here',
      fix: {
        set: [
          ...cold.map(row => ({ component: row.id, inputs: { retrievedGb: about(valueOf(row, 'storageGb').div(20)) } })),
          ...unread.map(row => ({ component: row.id, inputs: { readPercent: '5' } })),
        ],
      },
    }
  },
}
