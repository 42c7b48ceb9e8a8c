import { decimalText } from '../../money/decimal'
import type { Day } from '../../time/day'
import { findKind } from '../components'
import type { Field } from '../components/field-types'
import type { Estimate } from '../estimate'
import { readRate } from '../sheet/typed-terms'
import { readQuantity, readTyped } from '../sheet/typed-text'
import type { Needs } from './find-machines'

/** What a machine is needed for, with its numbers as someone types them. */
export type TypedNeeds = Omit<Needs, 'vcpu' | 'memoryGb'> & { vcpu: string | number; memoryGb: string | number }

const fieldOf = (kind: string, name: string): Field => findKind(kind)!.fields.find(field => field.name === name)!
const disk = fieldOf('disk', 'storageGb')
const hours = fieldOf('server', 'hoursPerMonth')
const many = fieldOf('server', 'count')

/**
 * Reads what is typed into the Finder: vCPU and memory are one number above 0, the rest is what the sheet takes for a disk and a server.
 * @param ownRates a rate of one's own by currency, as typed; nothing where none is.
 * @param day the day that such a rate is of.
 * @returns the needs and rates, or the first thing that is wrong, as a sentence.
 */
export function readNeeds(
  typed: TypedNeeds,
  ownRates: Readonly<Record<string, string>>,
  day: Day,
): { needs: Needs; rates: Estimate['rates'] } | { wrong: string } {
  const vcpu = oneNumber(typed.vcpu, 'vCPU')
  const memoryGb = oneNumber(typed.memoryGb, 'memory', 'GB')
  if (typeof vcpu === 'string') return { wrong: `${vcpu}.` }
  if (typeof memoryGb === 'string') return { wrong: `${memoryGb}.` }
  const [diskGb, hoursPerMonth, count] = [
    readTyped(disk, typed.diskGb),
    readTyped(hours, typed.hoursPerMonth),
    readTyped(many, typed.count),
  ] as const
  for (const read of [diskGb, hoursPerMonth, count]) if ('problem' in read) return { wrong: `${read.problem}.` }
  const rates: Estimate['rates'] = []
  for (const [from, text] of Object.entries(ownRates)) {
    const read = readRate(text, day)
    if (read && 'problem' in read) return { wrong: `The rate from ${from} must be a number above 0.` }
    if (read) rates.push({ from, ...read })
  }
  const value = (read: { value: string } | { problem: string }) => ('value' in read ? read.value : '')
  return { needs: { ...typed, vcpu, memoryGb, diskGb: value(diskGb), hoursPerMonth: value(hoursPerMonth), count: value(count) }, rates }
}

function oneNumber(text: string | number, label: string, unit?: string): number | string {
  const read = readQuantity(String(text), { label, unit })
  if (typeof read === 'string') return read
  return read.isRange || read.likely.lte(0) ? `${label} must be one number above 0` : Number(decimalText(read.likely))
}
