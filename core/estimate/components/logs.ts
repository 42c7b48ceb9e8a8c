import { divide, input, multiply } from '../../working/working'
import { number } from './field'
import type { ComponentKind } from './kind'

/** Logs, metrics and alarms: logs per GB taken in, kept and searched; metrics and alarms by their number. */
export const logs: ComponentKind = {
  kind: 'logs',
  label: 'Logs, metrics, alarms',
  words: ['logs', 'log', 'logging', 'metrics', 'alarms', 'alerts', 'monitoring', 'observability', 'log search'],
  needs: ['logs-ingested-gb'],
  fields: [
    number('ingestedGb', 'logs a month', {
      unit: 'GB',
      column: 'amount',
      max: 10_000_000,
      usual: '50',
      help: 'Taken in. Often more than one thinks: every request writes several lines.',
    }),
    number('daysKept', 'days kept', { unit: 'days', max: 3650, whole: true, usual: '30', help: "How long each day's logs stay." }),
    number('searchedGb', 'searched a month', {
      unit: 'GB',
      max: 100_000_000,
      usual: '0',
      help: 'What searches read: the same logs count each time.',
    }),
    number('metrics', 'metrics', {
      max: 10_000_000,
      whole: true,
      usual: '20',
      help: 'Own measurements that are kept, beyond those that come free.',
    }),
    number('alarms', 'alarms', { max: 1_000_000, whole: true, usual: '5', help: 'Conditions that are watched.' }),
  ],
  price(b) {
    const line = b.line('logs-ingested-gb', null, 'ingestedGb')
    const ingested = b.number('ingestedGb')
    // a year's days over its months: logs of so many days are always there
    const kept = divide(
      'GB kept',
      [multiply('GB × days kept, a year', [ingested, b.number('daysKept'), input('months a year', 12)]), input('days a year', 365)],
      'GB',
    )
    const keptLine = b.findLine('logs-kept-gb-month')
    const searched = b.findLine('logs-searched-gb')
    const [metric, alarm] = [b.findLine('metric-month'), b.findLine('alarm-month')]
    return {
      recurring: [
        b.charge('taken in', line, ingested),
        ...(keptLine ? [b.charge('kept', keptLine, kept)] : []),
        ...(searched ? [b.charge('searched', searched, b.number('searchedGb'))] : []),
        ...(metric ? [b.charge('metrics', metric, b.number('metrics'))] : []),
        ...(alarm ? [b.charge('alarms', alarm, b.number('alarms'))] : []),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'GB' },
      amounts: [{ unit: 'GB', quantity: ingested }],
    }
  },
}
