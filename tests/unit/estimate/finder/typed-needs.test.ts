import { expect, it } from 'vitest'
import { readNeeds, type TypedNeeds } from '../../../../core/estimate/finder/typed-needs'

const typed: TypedNeeds = {
  vcpu: ' 6 ',
  memoryGb: '24 GB',
  architecture: 'arm64',
  system: 'open, no licence',
  host: 'shared host',
  diskGb: '1.5 TB',
  hoursPerMonth: '5d x 10h',
  count: '1,200',
  places: ['Larkfield Compute/lk-alpha'],
  residencies: [],
}
const read = (more: Partial<TypedNeeds> = {}, rates: Record<string, string> = {}) => readNeeds({ ...typed, ...more }, rates, '2026-11-30')

it('reads numbers as the sheet does, units and schedules too; what is chosen stays as it is', () => {
  expect(read({}, { USD: '0,92', GBP: '  ' })).toEqual({ wrong: expect.stringContaining('rate from USD') as string })
  expect(read({}, { USD: '0.92', GBP: '  ' })).toEqual({
    needs: { ...typed, vcpu: 6, memoryGb: 24, diskGb: '1500', hoursPerMonth: '5d x 10h', count: '1200' },
    rates: [{ from: 'USD', rate: '0.92', day: '2026-11-30' }],
  })
  expect(read({ vcpu: 0.5, memoryGb: 0.25 })).toMatchObject({ needs: { vcpu: 0.5, memoryGb: 0.25 } })
})

it('says what is wrong, the first thing first', () => {
  expect(read({ vcpu: '0' })).toEqual({ wrong: 'vCPU must be one number above 0.' })
  expect(read({ vcpu: '-1', memoryGb: '0' })).toEqual({ wrong: 'vCPU must be one number above 0.' })
  expect(read({ memoryGb: '4..8..16' })).toEqual({ wrong: 'memory must be one number above 0.' })
  for (const wrong of [{ vcpu: 'many' }, { memoryGb: '6 h' }, { diskGb: 'some' }, { hoursPerMonth: 'often' }, { count: 'x' }])
    expect(read(wrong), JSON.stringify(wrong)).toEqual({ wrong: expect.stringMatching(/^\S.*[^.]\.$/) as string })
  for (const rate of ['0', '-1', '1..2..3', 'x'])
    expect(read({}, { USD: rate }), rate).toEqual({ wrong: 'The rate from USD must be a number above 0.' })
})
