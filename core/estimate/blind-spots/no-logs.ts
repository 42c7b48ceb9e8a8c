import { Decimal } from '../../money/decimal'
import { counted, hasRow, partOf, rowsOf, valueOf, type BlindSpot } from './blind-spot'

/** Something that runs, but nothing that tells how it runs. */
export const noLogs: BlindSpot = {
  id: 'no-logs',
  title: 'No logs, metrics, alarms',
  find(seen) {
    const running = rowsOf(seen, 'server', 'functions', 'app-hosting', 'database', 'database-tier')
    if (!running.length || hasRow(seen, 'logs')) return null
    const things = running.reduce((sum, row) => sum.plus(row.inputs.count === undefined ? 1 : valueOf(row, 'count')), new Decimal(0))
    return {
      reason: `${counted(things, 'thing that runs writes', 'things that run write')} logs; they are charged when they come in, while they are kept and when they are searched`,
      fix: {
        add: {
          part: partOf(seen, running[0]!),
          kind: 'logs',
          inputs: {
            ingestedGb: things.times(8).toFixed(),
            metrics: things.times(12).round().toFixed(),
            alarms: things.times(3).round().toFixed(),
          },
        },
      },
    }
  },
}
