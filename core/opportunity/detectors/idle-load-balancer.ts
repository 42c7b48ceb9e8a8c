import { measuredHours, total } from '../../measured/hourly'
import type { MetricName } from '../../measured/metrics'
import { unitsIn, usesOf, within } from '../bill/billed-resource'
import { findingOf } from '../bill/finding'
import type { MeasuredDetector, Threshold } from '../detector'
import { measuredSeries, told } from '../measured/measured-series'

const noise: Threshold = { key: 'noise', label: 'it is idle below', unit: 'GB in 30 days', usual: 0.1, least: 0.000001, most: 100_000 }
const needs: readonly MetricName[] = ['passed']

/** Load balancers that nothing passes: they are charged for every hour they exist. */
export const idleLoadBalancer: MeasuredDetector = {
  from: 'measured',
  detector: 'idle-load-balancer',
  label: 'Load balancers without traffic',
  looksAt: 'load balancers',
  metrics: needs,
  thresholds: [noise],
  needsOf: resource => (usesOf(resource, 'load-balancer-hour').some(use => unitsIn(use, 3) > 0n) ? needs : null),
  lookThrough: () => (resource, settings, measured) => {
    const hourly = measured('passed')
    const passed = total(hourly.values)
    if (!(passed < settings.noise!)) return []
    const changes = resource.uses.filter(use => within(use.cost, 30) > 0n).map(use => ({ use, how: 'gone' as const, then: null }))
    const finding = findingOf(resource, changes, {
      ...{ detector: idleLoadBalancer.detector, risk: 'little', minutesOfWork: 15, series: [] },
      instruction: { type: 'load balancer', deed: 'delete' },
      title: `${resource.name} passes nothing on`,
      measured: [
        measuredSeries('passed', hourly, {
          threshold: { value: settings.noise!, label: `below ${settings.noise} GB in all it is the noise of its own checks` },
          said: `${passed === 0 ? 'Nothing' : `${told(passed)} GB`} passed in ${measuredHours(hourly)} measured hours.`,
        }),
      ],
    })
    return finding ? [finding] : []
  },
  byHand: {
    steps: ({ resourceName }) => [`check whether a name still leads to ${resourceName}`, `delete ${resourceName}`],
    undo: 'A new one gets another address: names have to point to it.',
  },
  says: open =>
    `${open === 1 ? 'One load balancer passes' : `${open} load balancers pass`} nothing on and ${open === 1 ? 'is' : 'are'} paid for every hour.`,
}
