import { add, divide, input, largerOf, multiply, roundUp, smallerOf, subtract, type Working } from '../../working/working'
import type { Builder, Charges, CommitChoice } from './kind'
import { quietHours, busyHours, anyNumber } from './desktop-words'

/** `hours` are those of all machines together, `most` how many stand there at once. */
type Machines = { hours: Working; most: Working; commit: CommitChoice[]; facts: NonNullable<Charges['facts']> }

/** A machine for each user. */
export function each(b: Builder): Machines {
  const machines = b.number('users')
  return {
    hours: multiply('machine hours', [machines, b.hours()], 'h'),
    most: machines,
    commit: [{ value: null, label: '', parts: [{ running: 0, count: machines, beyond: null }] }],
    facts: [{ label: 'machines', working: machines }],
  }
}

/** Machines that users share, as many as their work asks for. */
export function shared(b: Builder, vcpu: number): Machines {
  const seats = multiply('sessions on a machine', [input('vCPU each', vcpu), b.number('usersPerVcpu')])
  const machines = (when: string, share: string) =>
    roundUp(`machines, ${when} hours`, [
      divide(`machines, ${when} hours, exactly`, [
        multiply(`sessions, ${when} hours`, [b.number('users'), b.number(share), input('of a hundred', '0.01')]),
        seats,
      ]),
    ])
  const [busy, quiet] = [machines('busy', 'busyPercent'), machines('quiet', 'quietPercent')]
  const busyTime = b.hours()
  const quietTime = subtract('quiet hours', [b.allHours(), busyTime])
  const hours = add(
    'machine hours',
    [multiply('in busy hours', [busy, busyTime], 'h'), multiply('in quiet hours', [quiet, quietTime], 'h')],
    'h',
  )
  /** Machine hours that so many committed machines leave to on-demand. */
  const beyond = (count: Working) => {
    const more = (when: string, of: Working, time: Working) =>
      multiply(
        `more in ${when} hours`,
        [largerOf(`${when} hours, beyond what is committed`, [subtract('less what is committed', [of, count]), input('none', 0)]), time],
        'h',
      )
    return add('machine hours beyond what is committed', [more('busy', busy, busyTime), more('quiet', quiet, quietTime)], 'h')
  }
  const choice = (value: string, count: Working): CommitChoice => ({
    value,
    label: value,
    parts: [{ running: 0, count, beyond: beyond(count) }],
  })
  const commit = [
    choice(quietHours, quiet),
    choice(busyHours, busy),
    ...(b.text('commitTo') === anyNumber ? [choice(anyNumber, b.number('commitCount'))] : []),
  ]
  return {
    hours,
    most: largerOf('most machines at once', [busy, quiet]),
    commit,
    facts: [
      { label: 'machines in busy hours', working: busy },
      { label: 'machines in quiet hours', working: quiet },
      { label: 'needed in every hour', working: smallerOf('needed in every hour', [busy, quiet]) },
    ],
  }
}
