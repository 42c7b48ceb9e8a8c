import { usualWays } from '../../ratecard/earlier-words'
import { ALWAYS_ON } from '../sheet/hours-text'

type Texts = Record<string, string>
type Row = { id?: unknown; kind?: unknown; inputs?: unknown; confirmed?: unknown }

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)
const isTexts = (value: unknown): value is Texts => isRecord(value) && Object.values(value).every(text => typeof text === 'string')

const shapes = new Map([
  ['pooled', 'shared machines'],
  ['personal', 'a machine each'],
])
const asks = ['little', 'usual', 'much', 'most']
const ladder = ['light', 'medium', 'heavy', 'extreme']
/** Users that a vCPU served by what they asked, as the first formats had it. */
const served = ['6', '4', '2', '1']
/** Fields of hours, by kind; in the month of 730 hours these were all of it. */
const hoursFields = new Set(['hoursPerMonth', 'peakHours'])

/**
 * Inputs of a desktop fleet under the names that they have now; what the first formats took as given is written out, so that the figures
 * stay.
 */
function fleetInputs(inputs: Texts, isOfOldFormat: boolean): Texts {
  const { heaviness, ...kept } = inputs
  const isOld = isOfOldFormat || heaviness !== undefined || shapes.has(inputs.shape ?? '')
  const renamed: Texts = { ...kept, ...(kept.shape !== undefined && { shape: shapes.get(kept.shape) ?? kept.shape }) }
  if (!isOld) return renamed
  const at = heaviness === undefined ? 0 : ladder.indexOf(heaviness)
  const counted = Math.min(served.length - 1, at + (inputs.oneUp === 'yes' ? 1 : 0))
  return {
    ...renamed,
    work: asks[at] ?? heaviness ?? 'little',
    ...(at >= 0 && { usersPerVcpu: served[counted]! }),
    ...(inputs.quietPercent === '0' && { commitTo: 'machines of the busy hours' }),
  }
}

/** Inputs of any kind under the names that they have now. @param always whether 730 hours mean all of the month. */
function inputsNow(kind: unknown, inputs: unknown, isOfOldFormat: boolean, always: (field: string) => boolean): unknown {
  if (!isTexts(inputs)) return inputs
  const renamed = kind === 'desktop-fleet' ? fleetInputs(inputs, isOfOldFormat) : inputs
  return Object.fromEntries(
    Object.entries(renamed).map(([field, text]) => [
      field,
      field === 'pays' ? usualWays(text) : hoursFields.has(field) && text === '730' && always(field) ? ALWAYS_ON : text,
    ]),
  )
}

/** What a scenario changes in a fleet: only the names, for it lies on top of the row's inputs. */
function overridesNow(inputs: unknown, isNamedMonth: boolean): unknown {
  if (!isTexts(inputs)) return inputs
  return Object.fromEntries(
    Object.entries(inputs).flatMap(([field, text]): [string, string][] => {
      if (field === 'pays') return [[field, usualWays(text)]]
      if (field === 'shape') return [[field, shapes.get(text) ?? text]]
      if (field === 'heaviness') {
        const at = ladder.indexOf(text)
        return at < 0
          ? [['work', text]]
          : [
              ['work', asks[at]!],
              ['usersPerVcpu', served[at]!],
            ]
      }
      return [[field, hoursFields.has(field) && text === '730' && !isNamedMonth ? ALWAYS_ON : text]]
    }),
  )
}

/**
 * A row of an estimate or pattern under the names that it has now.
 * @param isOfOldFormat whether it surely is of the second format, so that what it leaves out is as that format had it.
 */
export function rowNow(row: unknown, isOfOldFormat = false, isNamedMonth = false): unknown {
  if (!isRecord(row)) return row
  const { kind, inputs, confirmed } = row as Row
  const chosen = Array.isArray(confirmed) ? confirmed : []
  return {
    ...row,
    inputs: inputsNow(kind, inputs, isOfOldFormat, field => !isNamedMonth || !chosen.includes(field)),
    ...(Array.isArray(confirmed) && { confirmed: confirmed.map(field => (field === 'heaviness' ? 'work' : (field as unknown))) }),
  }
}

/** Version 1 had one card, one discount and no scenarios. */
function fromVersion1(value: unknown): unknown {
  if (!isRecord(value) || value.format !== 'rain-barrel estimate 1') return value
  const { rateCardDate, discountPercent, ...kept } = value
  const discounted = typeof discountPercent === 'string' && discountPercent !== '0'
  return {
    note: '',
    currency: null,
    rates: [],
    month: null,
    termYears: null,
    funding: [],
    marginPercent: '0',
    scenarios: [],
    seed: 1,
    ...kept,
    format: 'rain-barrel estimate 2',
    cards: [{ provider: kept.provider, date: rateCardDate }],
    discounts: discounted ? [{ provider: kept.provider, percent: discountPercent }] : [],
  }
}

/** Version 2 had other words for ways to pay and fleets, 730 hours for always on, credits from the first month, and one card to a day. */
function fromVersion2(value: unknown): unknown {
  if (!isRecord(value) || value.format !== 'rain-barrel estimate 2') return value
  const isNamed = typeof value.month === 'string'
  const list = (of: unknown, each: (one: unknown) => unknown) => (Array.isArray(of) ? of.map(each) : of)
  return {
    ...value,
    format: 'rain-barrel estimate 3',
    components: list(value.components, row => rowNow(row, true, isNamed)),
    scenarios: list(value.scenarios, scenario =>
      isRecord(scenario)
        ? {
            ...scenario,
            whole: overridesNow(scenario.whole, isNamed),
            rows: isRecord(scenario.rows)
              ? Object.fromEntries(Object.entries(scenario.rows).map(([id, inputs]) => [id, overridesNow(inputs, isNamed)]))
              : scenario.rows,
          }
        : scenario,
    ),
  }
}

/** An estimate of any earlier format as the present one; anything else as it is. */
export const presentFormat = (value: unknown): unknown => fromVersion2(fromVersion1(value))
