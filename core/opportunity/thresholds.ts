import type { SettingsOf } from './bill/look-through-bill'
import type { Settings, Threshold, ThresholdDetector } from './detector'

/** A threshold as it is set: for the company where the sub account is empty. */
export type SetThreshold = { detector: string; key: string; subAccount: string; value: number }

const nameOf = (detector: string, key: string, subAccount: string) => JSON.stringify([detector, key, subAccount])

/** What thresholds are set to where a resource is: for its sub account, else for the company, else the usual. */
export function settingsFrom(set: readonly SetThreshold[]): SettingsOf {
  const values = new Map(set.map(({ detector, key, subAccount, value }) => [nameOf(detector, key, subAccount), value]))
  const at = ({ detector, thresholds }: ThresholdDetector, subAccount: string): Settings =>
    Object.fromEntries(
      thresholds.map(({ key, usual }) => [
        key,
        values.get(nameOf(detector, key, subAccount)) ?? values.get(nameOf(detector, key, '')) ?? usual,
      ]),
    )
  // asked for every resource: a sub account's are put together once
  const known = new Map<ThresholdDetector, Map<string, Settings>>()
  return (detector, { subAccountName }) => {
    const own = known.get(detector) ?? new Map<string, Settings>()
    known.set(detector, own)
    const settings = own.get(subAccountName) ?? at(detector, subAccountName)
    own.set(subAccountName, settings)
    return settings
  }
}

/** Why a threshold cannot be set so, in words that say how to mend it; null where it can. */
export function thresholdProblem({ detector, key, value }: SetThreshold, detectors: readonly ThresholdDetector[]): string | null {
  const own = detectors.find(one => one.detector === detector)
  if (!own) return `no detector is called «${detector}»`
  const threshold = own.thresholds.find(one => one.key === key)
  if (!threshold) return `«${own.label}» has no threshold «${key}», but ${own.thresholds.map(one => `«${one.key}»`).join(', ')}`
  return valueProblem(threshold, value)
}

function valueProblem({ label, unit, least, most, options }: Threshold, value: number): string | null {
  if (options && !options.includes(value)) return `«${label}» can be ${options.join(', ')} ${unit}, not ${value}`
  if (!(value >= least && value <= most)) return `«${label}» is from ${least} to ${most} ${unit}, not ${value}`
  return null
}
