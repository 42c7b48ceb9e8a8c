import { decimalText } from '../../money/decimal'
import { divide, input, multiply } from '../../working/working'
import type { BillDetector, Threshold } from '../detector'
import { paidUse, unitsIn, usesOf } from '../bill/billed-resource'
import { amount, findingOf, monthlyCost } from '../bill/finding'
import { DAYS_OF_A_MONTH } from '../bill/stretches'

const longest: Threshold = { key: 'longest', label: 'kept longer than', unit: 'days', usual: 90, least: 1, most: 3650 }
const saved: Threshold = { key: 'saved', label: 'saves at least', unit: 'a month', usual: 10, least: 0, most: 1_000_000 }

/**
 * Logs that are kept for longer than a number of days: what is kept, over what comes in on a day, is for how long. What is older than that
 * is offered, as long as as much comes in as lately.
 */
export const logsKeptLong: BillDetector = {
  from: 'bill',
  detector: 'logs-kept-long',
  label: 'Logs kept longer than needed',
  thresholds: [longest, saved],
  lookThrough: () => (resource, settings) => {
    const use = paidUse(resource, 'logs-kept-gb-month')
    if (!use) return []
    const { days: lately } = resource.window
    const came = usesOf(resource, 'logs-ingested-gb').reduce((sum, one) => sum + unitsIn(one, 30), 0n)
    const aDay = amount(came).div(lately)
    const kept = amount(unitsIn(use, 30)).times(DAYS_OF_A_MONTH).div(lately)
    // into what nothing comes any more says nothing of how old it is
    if (aDay.eq(0) || kept.lte(aDay.times(settings.longest!))) return []
    const days = kept.div(aDay).round(1)
    const then = multiply(`kept for ${settings.longest!} days`, [
      monthlyCost(resource, use),
      divide('of the days', [
        input('days to keep', settings.longest!, 'days'),
        divide('days kept', [
          input('GB kept', decimalText(kept.round(3)), 'GB'),
          input('GB that come in on a day', decimalText(aDay.round(3)), 'GB'),
        ]),
      ]),
    ])
    const finding = findingOf(resource, [{ use, how: 'less', then }], {
      detector: logsKeptLong.detector,
      of: use.sku,
      title: `${resource.name} keeps logs for ${decimalText(days.round(0))} days`,
      risk: 'some',
      minutesOfWork: 20,
      series: [
        {
          resourceId: resource.id,
          skus: [use.sku],
          label: 'kept',
          unit: 'GB',
          threshold: {
            value: Number(decimalText(aDay.times(settings.longest!).round(0))),
            label: `${settings.longest!} days of what comes in`,
          },
          said: `${decimalText(kept.round(0))} GB are kept and ${decimalText(aDay.round(1))} GB come in on a day: ${decimalText(days)} days.`,
        },
      ],
    })
    return finding && Number(finding.monthlySaving) >= settings.saved! ? [finding] : []
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask who reads ${resourceName} how far back, and whether a law or a contract has it kept`,
      'set at the provider for how long it is kept; what is older is deleted then',
    ],
    undo: 'What is deleted does not come back; from then on it can be kept longer again.',
  },
  says: open => `${open === 1 ? 'One log is' : `${open} logs are`} kept longer than needed.`,
}
