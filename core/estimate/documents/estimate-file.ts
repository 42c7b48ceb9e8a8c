import { estimateSchema, type Estimate } from '../estimate'

const sorted = <T>(record: Record<string, T>): Record<string, T> =>
  Object.fromEntries(Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1)))

/** An estimate as a file: the same inputs always give the same bytes, whatever order they were held in. */
export function writeEstimate(estimate: Estimate): string {
  const ordered = estimateSchema.parse(estimate)
  const components = ordered.components.map(component => ({ ...component, inputs: sorted(component.inputs) }))
  const scenarios = ordered.scenarios.map(scenario => ({
    ...scenario,
    whole: sorted(scenario.whole),
    rows: sorted(Object.fromEntries(Object.entries(scenario.rows).map(([id, inputs]) => [id, sorted(inputs)]))),
  }))
  return JSON.stringify({ ...ordered, components, scenarios }, null, 2) + '\n'
}

/** Reads such a file. @returns what is wrong, by field, when it is none. */
export function readEstimate(text: string): { estimate: Estimate } | { problems: string[] } {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    return { problems: ['it is not a JSON document'] }
  }
  const read = estimateSchema.safeParse(value)
  return read.success
    ? { estimate: read.data }
    : { problems: read.error.issues.map(issue => `${issue.path.join('.') || 'the file'}: ${issue.message}`) }
}
