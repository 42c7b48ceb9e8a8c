import { describe, expect, it } from 'vitest'
import { isMeasurementTable, MeasurementReader } from '../../../core/measured/measurement-reader'

/** Reads rows of resource, metric, unit, time and value. */
function read(...rows: string[]) {
  const reader = new MeasurementReader()
  expect(reader.begin(['resource', 'metric', 'unit', 'time', 'value'])).toBeNull()
  rows.forEach((row, i) => reader.row(i + 2, row.split(',')))
  return reader
}
const hoursOf = (reader: MeasurementReader, id: string) =>
  reader.days().map(({ metric, day, hours }) => [metric, day, [...(hours.get(id) ?? [])]])

describe('a file of measurements', () => {
  it('takes the highest of an hour, or all of it, as the metric has it', () => {
    const reader = read(
      'm,cpu,%,2026-11-03T14:00:00Z,12',
      'm,cpu,%,2026-11-03T14:30:00Z,40',
      'm,cpu,%,2026-11-03T14:45:00Z,7',
      'lb,passed,GB,2026-11-03T14:00:00Z,1.5',
      'lb,passed,GB,2026-11-03T14:05Z,2.25',
    )
    const [cpu, passed] = reader.days()
    expect([cpu!.metric, cpu!.day, cpu!.hours.get('m')![14], cpu!.hours.get('m')![13]]).toEqual(['cpu', '2026-11-03', 40, NaN])
    expect(passed!.hours.get('lb')![14]).toBe(3.75)
    expect([reader.rows, reader.refused]).toEqual([5, 0])
  })

  it('puts a time of another zone on the hour and day that it is', () => {
    const reader = read('m,cpu,%,2026-11-03T00:30:00+02:00,5', 'm,cpu,%,2026-11-03T23:30:00-01:00,6')
    expect(hoursOf(reader, 'm').map(([, day, hours]) => [day, (hours as number[]).findIndex(value => !Number.isNaN(value))])).toEqual([
      ['2026-11-02', 22],
      ['2026-11-04', 0],
    ])
  })

  it('finds its columns in any order and spelling of letters, among others', () => {
    const reader = new MeasurementReader()
    expect(reader.begin(['Value', 'note', 'TIME ', 'unit', 'metric', 'resource'])).toBeNull()
    reader.row(2, ['3', 'x', '2026-11-03T14:00:00Z', 'MB/s', 'throughput', 'd'])
    expect(reader.days()[0]!.hours.get('d')![14]).toBe(3)
    expect(isMeasurementTable(['Value', 'note', 'TIME ', 'unit', 'metric', 'resource'])).toBe(true)
    expect(isMeasurementTable(['value', 'time', 'unit', 'metric'])).toBe(false)
    expect(new MeasurementReader().begin(['resource', 'time', 'value'])).toBe('there is no column «metric», «unit»')
  })

  it('refuses each row that does not fit, by its line, and takes the others', () => {
    const reader = read(
      ',cpu,%,2026-11-03T14:00:00Z,1',
      'm,heat,%,2026-11-03T14:00:00Z,1',
      'm,constructor,%,2026-11-03T14:00:00Z,1',
      'm,throughput,GB/s,2026-11-03T14:00:00Z,1',
      'm,cpu,%,2026-11-03T14:00:00,1',
      'm,cpu,%,2026-13-03T14:00:00Z,1',
      'm,cpu,%,2026-11-03,1',
      'm,cpu,%,2026-11-03T14:00:00Z,-1',
      'm,cpu,%,2026-11-03T14:00:00Z,',
      'm,cpu,%,2026-11-03T14:00:00Z,1e99',
      'm,cpu,%,2026-11-03T14:00:00Z,100.1',
      'm,operations,1/s,2026-11-03T14:00:00Z,4e38',
      '',
      'm,cpu,%,2026-11-03T14:00:20Z,100',
      'm,cpu,%,2026-11-03T14:00:40Z,3',
    )
    expect([reader.rows, reader.refused]).toEqual([14, 13])
    expect(reader.wrong.map(({ line, why }) => `${line} ${why}`)).toEqual([
      '2 it has no resource',
      '3 «heat» is not measured here: use cpu, memory, operations, throughput, passed, attached',
      '4 «constructor» is not measured here: use cpu, memory, operations, throughput, passed, attached',
      '5 throughput is told in «MB/s», not in «GB/s»',
      '6 «2026-11-03T14:00:00» is no time: write a day, a time and its zone, such as 2026-11-03T14:00:00Z',
      '7 «2026-13-03T14:00:00Z» is no time: write a day, a time and its zone, such as 2026-11-03T14:00:00Z',
      '8 «2026-11-03» is no time: write a day, a time and its zone, such as 2026-11-03T14:00:00Z',
      '9 «-1» is no number from 0 on',
      '10 «» is no number from 0 on',
      '11 1e99 is more than can be kept',
      '12 100.1 % is more than all of it: tell it of all processors, or all memory, together',
      '13 4e38 is more than can be kept',
      '16 cpu of m is told for that minute already',
    ])
    expect(hoursOf(reader, 'm')).toHaveLength(1)
    expect(reader.days()[0]!.hours.get('m')![14]).toBe(100)
  })

  it('names a hundred refused rows, and counts all', () => {
    const reader = read(...Array.from({ length: 150 }, () => 'm,heat,%,x,1'))
    expect([reader.refused, reader.wrong.length]).toEqual([150, 100])
  })

  it('keeps names that objects have of their own apart', () => {
    const reader = read('constructor,cpu,%,2026-11-03T14:00:00Z,1', '__proto__,cpu,%,2026-11-03T14:00:00Z,2')
    expect([...reader.days()[0]!.hours].map(([id, hours]) => [id, hours[14]])).toEqual([
      ['constructor', 1],
      ['__proto__', 2],
    ])
  })
})
