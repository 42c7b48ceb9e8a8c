import { measuredHours, weekOf } from '../../measured/hourly'
import type { MetricName } from '../../measured/metrics'
import type { Meter } from '../../ratecard/meters'
import { divide, input, multiply } from '../../working/working'
import { paidUse } from '../bill/billed-resource'
import { monthlyCost, findingOf } from '../bill/finding'
import type { MeasuredDetector, Threshold } from '../detector'
import { measuredSeries } from '../measured/measured-series'
import { HOURS_A_WEEK, quietStretches, stretchWords } from '../measured/quiet-hours'

const used: Threshold = { key: 'used', label: 'an hour is quiet below', unit: '% of the processor', usual: 5, least: 0.1, most: 100 }
const least: Threshold = { key: 'least', label: 'it sleeps in one go at least', unit: 'hours', usual: 4, least: 1, most: 168 }
const hours: Threshold = { key: 'hours', label: 'in a week at least', unit: 'hours', usual: 30, least: 1, most: 168 }

/** What counts only while it runs, and what that is to a service. */
const meters: readonly { meter: Meter; type: string }[] = [
  { meter: 'server-hour', type: 'server' },
  { meter: 'database-hour', type: 'database' },
]
const needs: readonly MetricName[] = ['cpu']

/** Machines and databases that do nothing in the same hours of every week: they can stand still then. Disks and licences go on. */
export const canSleep: MeasuredDetector = {
  from: 'measured',
  detector: 'can-sleep',
  label: 'Could sleep in hours without use',
  looksAt: 'machines and databases',
  metrics: needs,
  thresholds: [used, least, hours],
  needsOf: resource => (meters.some(({ meter }) => paidUse(resource, meter)) ? needs : null),
  lookThrough: () => (resource, settings, measured) => {
    const [running] = meters.flatMap(({ meter, type }) => {
      const use = paidUse(resource, meter)
      return use ? [{ use, type }] : []
    })
    if (!running) return []
    const { use, type } = running
    const cpu = measured('cpu')
    const stretches = quietStretches(weekOf(cpu), settings.used!, settings.least!)
    const quiet = stretches.reduce((sum, one) => sum + one.hours, 0)
    if (quiet < settings.hours!) return []
    const awake = divide('of the week', [input('hours awake', HOURS_A_WEEK - quiet, 'h'), input('hours of a week', HOURS_A_WEEK, 'h')])
    const finding = findingOf(
      resource,
      [{ use, how: 'less', then: quiet === HOURS_A_WEEK ? null : multiply('awake', [monthlyCost(resource, use), awake]) }],
      {
        ...{ detector: canSleep.detector, of: use.sku, risk: 'some', minutesOfWork: 30, series: [] },
        // what nobody ever uses is not put to sleep
        instruction: quiet === HOURS_A_WEEK ? undefined : { type, deed: 'schedule', asleep: stretches },
        title: `${resource.name} could sleep ${quiet} hours a week`,
        measured: [
          measuredSeries('cpu', cpu, {
            threshold: { value: settings.used!, label: 'below the line an hour is quiet' },
            said: `Quiet in every week: ${stretchWords(stretches)} (UTC); ${measuredHours(cpu)} hours are measured. Disks and licences go on.`,
          }),
        ],
      },
    )
    return finding ? [finding] : []
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask its owner whether anybody needs ${resourceName} in these hours`,
      'let the provider stop and start it by the clock: from here, or at the provider',
    ],
    undo: 'Take the times out again: it then runs all week.',
  },
  says: open =>
    `${open === 1 ? 'One machine or database does' : `${open} machines and databases do`} nothing in the same hours of every week.`,
}
