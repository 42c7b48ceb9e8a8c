import { findPrice, variantsOf, type RateCard } from '../../ratecard/rate-card'
import { add, divide, input, largerOf, multiply, roundUp, subtract, type Working } from '../../working/working'
import { choice, hoursField, number, variantChoice, words } from './field'
import type { Builder, Charges, ComponentKind } from './kind'
import { checkSize, paysField, sharedHost, systemAndHost, systemsOf } from './server'

/** Users that one vCPU serves, by how heavily they work (common practice, no source). */
export const usersPerVcpu = { light: 6, medium: 4, heavy: 2, extreme: 1 } as const
const classes = ['light', 'medium', 'heavy', 'extreme'] as const
type Heaviness = typeof classes[number]

const pooled = 'pooled'
const pairOfServers = 'a pair of file servers'
const oneServer = 'one file server'
const copiesOf: Record<string, string> = { [pairOfServers]: '2', [oneServer]: '1' }
const profilePlaces = (card: RateCard, region: string) => [pairOfServers, oneServer, ...variantsOf(card, 'share-gb-month', region).map(name => `share, ${name}`)]

/**
 * Remote-desktop fleet. Pooled: sessions = users × share signed in; machines = ⌈sessions / (vCPU × users per vCPU)⌉, for busy and quiet
 * hours; the machines of the quiet hours run all month, the further ones in busy hours. Personal: one machine per user. On top: disks,
 * profile storage per user on file servers or a managed share, and access licences less those already held. (Common practice, no source.)
 */
export const desktopFleet: ComponentKind = {
  kind: 'desktop-fleet',
  label: 'Desktop fleet',
  words: ['desktop', 'remote desktop', 'virtual desktop', 'workplace', 'office computers', 'users'],
  needs: ['server-hour', 'desktop-user'],
  fields: [
    variantChoice('size', 'machine', 'server-hour', { column: 'size', help: 'Size of every machine.', usual: (card, region) => variantsOf(card, 'server-hour', region)[2] ?? variantsOf(card, 'server-hour', region)[0] ?? '' }),
    words('shape', 'kind', [pooled, 'personal'], 'Pooled: users share machines. Personal: a machine for each user.'),
    number('users', 'users', { column: 'count', min: 1, max: 100_000, whole: true, usual: '50', help: 'Everyone who may sign in.' }),
    words('heaviness', 'work', classes, `How heavily they work: a vCPU serves ${classes.map(c => `${usersPerVcpu[c]} ${c}`).join(', ')} users.`),
    words('oneUp', 'one class up', ['no', 'yes'], 'Counts everyone one class heavier than they say: the careful size.'),
    hoursField('Personal: hours a month each machine runs. Pooled: the busy hours, the rest of the month is quiet.', { usual: '5d x 10h' }),
    number('busyPercent', 'signed in, busy', { unit: '%', max: 100, usual: '80', help: 'Share of the users at work in busy hours; counts for pooled fleets.' }),
    number('quietPercent', 'signed in, quiet', { unit: '%', max: 100, usual: '5', help: 'Share at work in the other hours; 0 switches all machines off then.' }),
    choice('system', 'system', systemsOf, { help: 'Operating system of the machines.' }),
    variantChoice('diskClass', 'disk class', 'disk-gb-month', { help: 'A disk for each machine.' }),
    number('diskGb', 'disk of each', { unit: 'GB', min: 1, max: 65_536, usual: '120', help: 'For the system and programs; charged also while the machine is off.' }),
    number('profileGb', 'profile', { unit: 'GB', column: 'amount', max: 10_000, usual: (card, region) => findPrice(card, 'desktop-user', region)?.includes?.profileGb ?? '20', help: 'Files and settings kept for each user; the rate card says what is usual.' }),
    choice('profilesOn', 'profiles on', profilePlaces, { help: 'A pair of file servers stays up when one fails; a managed share needs no servers.' }),
    variantChoice('fileServer', 'file server', 'server-hour', { help: 'Size of each file server.' }),
    number('held', 'licences held', { max: 100_000, whole: true, usual: '0', help: 'Users whose subscription already allows remote desktops: no access licence is bought for them.' }),
    paysField('server-hour'),
  ],
  price(b) {
    const size = b.text('size')
    const { vcpu } = checkSize(b, size, b.text('system'), sharedHost)
    const line = b.line('server-hour', size, 'size')
    const users = b.number('users')
    const fleet = b.text('shape') === pooled ? pooledMachines(b, vcpu) : personalMachines(b)
    const machineHours = add('machine hours', [multiply('running all these hours', [fleet.base, fleet.baseHours], 'h'), ...fleet.extra ? [fleet.extra] : []], 'h')
    const disks = multiply('GB of all disks', [fleet.most, b.number('diskGb')], 'GB')
    const bought = largerOf('licences bought', [subtract('users less licences held', [users, b.number('held')]), input('none', 0)])
    const recurring = [
      ...fleet.extra ? [b.charge('further machines in busy hours', line, fleet.extra)] : [],
      ...systemAndHost(b, vcpu, machineHours, b.text('system'), sharedHost),
      b.charge('disks', b.line('disk-gb-month', b.text('diskClass'), 'diskClass'), disks),
      ...profiles(b, users),
      b.charge('access licences', b.line('desktop-user', null, 'held'), bought),
    ]
    return {
      committable: { label: `${size}, on-demand`, line, count: fleet.base, hours: fleet.baseHours }, recurring, unitPrice: { value: line.tiers[0]!.price, per: 'h' }, count: users, hours: fleet.baseHours,
      amounts: [{ unit: 'users', quantity: users }], each: { label: 'user', count: users }, facts: [...fleet.facts, { label: 'licences needed', working: users }, { label: 'licences bought', working: bought }],
    }
  },
}

type Machines = { base: Working, baseHours: Working, extra: Working | null, most: Working, facts: NonNullable<Charges['facts']> }

function personalMachines(b: Builder): Machines {
  const machines = b.number('users')
  return { base: machines, baseHours: b.hours(), extra: null, most: machines, facts: [{ label: 'machines', working: machines }] }
}

function pooledMachines(b: Builder, vcpu: number): Machines {
  const heaviness = classes.indexOf(b.text('heaviness') as Heaviness)
  const counted = classes[Math.min(classes.length - 1, heaviness + (b.text('oneUp') === 'yes' ? 1 : 0))]!
  const seats = multiply('sessions on a machine', [input('vCPU each', vcpu), input(`${counted} users per vCPU`, usersPerVcpu[counted])])
  const machines = (when: string, share: string) => roundUp(`machines, ${when} hours`, [divide(`machines, ${when} hours, exactly`, [multiply(`sessions, ${when} hours`, [b.number('users'), b.number(share), input('of a hundred', '0.01')]), seats])])
  const busy = machines('busy', 'busyPercent')
  const facts = [{ label: 'machines in busy hours', working: busy }]
  // nobody in quiet hours: everything is switched off then, and what one could commit to are the busy machines
  if (b.typed('quietPercent').high.eq(0)) return { base: busy, baseHours: b.hours(), extra: null, most: busy, facts }
  const quiet = machines('quiet', 'quietPercent')
  const further = largerOf('further machines in busy hours', [subtract('busy less quiet', [busy, quiet]), input('none', 0)])
  return {
    base: quiet, baseHours: input('hours of the month', b.monthHours, 'h'), extra: multiply('further machine hours', [further, b.hours()], 'h'), most: largerOf('most machines at once', [busy, quiet]),
    facts: [...facts, { label: 'machines in quiet hours', working: quiet }],
  }
}

/** Where the profiles lie: on file servers that run all month, or on a managed share. */
function profiles(b: Builder, users: Working): Working[] {
  const gb = multiply('GB of all profiles', [users, b.number('profileGb')], 'GB')
  const on = b.text('profilesOn')
  const copies = copiesOf[on]
  if (copies === undefined) return [b.charge('profiles on the share', b.line('share-gb-month', on.replace('share, ', ''), 'profilesOn'), gb)]
  const servers = input('file servers', copies)
  const size = b.text('fileServer')
  return [
    b.charge('file servers', b.line('server-hour', size, 'fileServer'), multiply('file server hours', [servers, input('hours of the month', b.monthHours, 'h')], 'h')),
    b.charge('disks of the file servers', b.line('disk-gb-month', b.text('diskClass'), 'diskClass'), multiply('GB on the file servers', [servers, gb], 'GB')),
  ]
}
