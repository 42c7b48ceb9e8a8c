/** What becomes of several values of one hour: the highest of them counts, or all of them together. */
export type OfHour = 'highest' | 'sum'
export type MetricFacts = { what: string; unit: string; ofHour: OfHour }

/** What can be measured of resources, hour by hour, in one unit each. */
export const metrics = {
  cpu: { what: 'processor used', unit: '%', ofHour: 'highest' },
  memory: { what: 'memory used', unit: '%', ofHour: 'highest' },
  operations: { what: 'operations a second', unit: '1/s', ofHour: 'highest' },
  throughput: { what: 'moved a second', unit: 'MB/s', ofHour: 'highest' },
  passed: { what: 'passed through', unit: 'GB', ofHour: 'sum' },
  // what an inventory says of a disk or an address, told hour by hour like everything else
  attached: { what: 'attached', unit: 'machines', ofHour: 'highest' },
} as const satisfies Record<string, MetricFacts>

export type MetricName = keyof typeof metrics
export const metricNames = Object.keys(metrics) as MetricName[]

/** Whether a text names something that can be measured. */
export const isMetric = (name: string): name is MetricName => Object.hasOwn(metrics, name)
