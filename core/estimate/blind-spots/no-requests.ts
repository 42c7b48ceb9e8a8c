import { about, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Objects that are kept, but never written nor read. */
export const noRequests: BlindSpot = {
  id: 'no-requests',
  title: 'Object storage without requests',
  find(seen) {
    const stores = rowsOf(seen, 'object-storage').filter(row => valueOf(row, 'writes').eq(0) && valueOf(row, 'reads').eq(0))
    if (!stores.length) return null
    return {
      reason: 'every object put or fetched is a request that is charged, small files most of all',
      fix: {
        set: stores.map(row => {
          const objects = valueOf(row, 'storageGb').times(1000).div(valueOf(row, 'objectMb'))
          return { component: row.id, inputs: { writes: about(objects.div(10).round()), reads: about(objects.times(2).round()) } }
        }),
      },
    }
  },
}
