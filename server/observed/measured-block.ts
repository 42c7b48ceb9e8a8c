import { crc32 } from 'node:zlib'
import type { Reading } from '../../core/opportunity/opportunity'
import type { Day } from '../../core/time/day'

/** Of each resource, by its id, the values of a day's 24 hours; NaN for an hour that was not measured. */
export type MeasuredDay = Map<string, Float32Array>
/** The same as it is kept: the ids, and as many values of 32 bits for each, little endian, behind a checksum of them. */
export type MeasuredBlock = { resources: string[]; bytes: Uint8Array }

const HOURS = 24
const HEAD_BYTES = 4

/** Hours of a resource that nothing is known of yet. */
export const unmeasured = (): Float32Array => new Float32Array(HOURS).fill(Number.NaN)

export const packDay = (day: MeasuredDay): MeasuredBlock => packValues(day, HOURS)
/** @returns null for a block that is damaged. */
export const unpackDay = (block: MeasuredBlock): MeasuredDay | null => unpackValues(block, HOURS)

/** @param width so many values of each. */
export function packValues(all: ReadonlyMap<string, Float32Array>, width: number): MeasuredBlock {
  const bytes = new Uint8Array(HEAD_BYTES + all.size * width * 4)
  const view = new DataView(bytes.buffer)
  let offset = HEAD_BYTES
  for (const values of all.values()) for (const value of values) view.setFloat32((offset += 4) - 4, value, true)
  view.setUint32(0, crc32(bytes.subarray(HEAD_BYTES)))
  return { resources: [...all.keys()], bytes }
}

/** @returns null for a block that is damaged. */
export function unpackValues({ resources, bytes }: MeasuredBlock, width: number): Map<string, Float32Array> | null {
  if (bytes.byteLength !== HEAD_BYTES + resources.length * width * 4) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (view.getUint32(0) !== crc32(bytes.subarray(HEAD_BYTES))) return null
  let offset = HEAD_BYTES
  return new Map(resources.map(id => [id, Float32Array.from({ length: width }, () => view.getFloat32((offset += 4) - 4, true))]))
}

/** The hour of a day that a reading is of. */
export const hourOf = ({ at }: Reading): number => Number(at.slice(11, 13))

/** A resource's readings on a day, as they were measured. */
export function readingsIn(day: Day, hours: Float32Array): Reading[] {
  const readings: Reading[] = []
  for (const [hour, value] of hours.entries())
    if (!Number.isNaN(value)) readings.push({ at: `${day}T${String(hour).padStart(2, '0')}:00:00Z`, value: asMeasured(value) })
  return readings
}

/** What a value of 32 bits surely has of its decimal digits, and the most that tell it from its neighbours. */
const SURE_DIGITS = 6
const MOST_DIGITS = 9

/** The shortest decimal that is kept as this value of 32 bits: 0.1 is read as 0.1, not as 0.10000000149011612. */
export function asMeasured(value: number): number {
  for (let digits = SURE_DIGITS; digits < MOST_DIGITS; digits++) {
    const short = Number(value.toPrecision(digits))
    if (Math.fround(short) === value) return short
  }
  return Number(value.toPrecision(MOST_DIGITS))
}
