import { findPrice, findSize, variantName, variantsOf } from '../../ratecard/find-price'
import { input, largerOf, multiply, subtract, type Working } from '../../working/working'
import { choice, hoursField, number, variantChoice, words } from './field'
import type { Builder, Charge, CommitChoice, ComponentKind } from './kind'
import { checkSize, imageField, paysField, sharedHost, systemAndHost, systemField } from './server'
import {
  sharedMachines,
  machineEach,
  asks,
  isShared,
  usersOf,
  countedAs,
  USERS_PER_VCPU,
  profilePlaces,
  copiesOf,
  onShare,
  quietHours,
  busyHours,
  anyNumber,
} from './desktop-words'
import { shared, each } from './desktop-machines'

/**
 * Remote-desktop fleet. Shared machines: sessions = users × share signed in; machines = ⌈sessions / (vCPU × users per vCPU)⌉, for busy and
 * for quiet hours, each charged for its own hours. A machine each: one per user. On top: disks, profile storage per user on file servers
 * or a managed share, and access licences less those already held. One may commit to the machines of the quiet hours, of the busy hours or
 * to any number, and to the file servers, which always run. (Common practice, no source.)
 */
export const desktopFleet: ComponentKind = {
  kind: 'desktop-fleet',
  label: 'Desktop fleet',
  words: ['desktop', 'desktops', 'remote desktop', 'virtual desktop', 'workplace', 'office computers', 'users'],
  needs: ['server-hour', 'desktop-user'],
  fields: [
    variantChoice('size', 'machine', 'server-hour', {
      column: 'size',
      help: 'Size of every machine.',
      usual: (card, region) => variantsOf(card, 'server-hour', region)[2] ?? variantsOf(card, 'server-hour', region)[0] ?? '',
    }),
    words('shape', 'kind', [sharedMachines, machineEach], 'Shared machines serve several users at once; or a machine for each user.'),
    number('users', 'users', { column: 'count', min: 1, max: 100_000, whole: true, usual: '50', help: 'Everyone who may sign in.' }),
    choice('work', 'they ask', () => [...asks], {
      help: 'What users ask of a machine: little for forms and mail, most for drawings and film.',
      usual: () => 'usual',
      applies: isShared,
    }),
    words('oneUp', 'one step up', ['no', 'yes'], 'Counts everyone as asking one step more than they say: the careful size.', undefined, {
      applies: isShared,
    }),
    number('usersPerVcpu', 'users per vCPU', {
      min: 0.05,
      max: 1000,
      follows: true,
      applies: isShared,
      help: 'How many one vCPU serves at once. As the rate card says for what they ask, until you type it.',
      usual: (card, region, inputs) => findPrice(card, 'desktop-user', region)?.includes?.[usersOf[countedAs(inputs)]] ?? USERS_PER_VCPU,
    }),
    hoursField('A machine each: hours a month each machine runs. Shared machines: the busy hours, the rest of the month is quiet.', {
      usual: '5d x 10h',
    }),
    number('busyPercent', 'signed in, busy', {
      unit: '%',
      max: 100,
      usual: '80',
      help: 'Share of the users at work in busy hours.',
      applies: isShared,
    }),
    number('quietPercent', 'signed in, quiet', {
      unit: '%',
      max: 100,
      usual: '5',
      help: 'Share at work in the other hours; 0 switches all machines off then.',
      applies: isShared,
    }),
    systemField('Operating system of the machines.'),
    imageField,
    variantChoice('diskClass', 'disk class', 'disk-gb-month', { help: 'A disk for each machine.' }),
    number('diskGb', 'disk of each', {
      unit: 'GB',
      min: 1,
      max: 65_536,
      usual: '120',
      help: 'For the system and programs; charged also while the machine is off.',
    }),
    number('profileGb', 'profile', {
      unit: 'GB',
      column: 'amount',
      max: 10_000,
      usual: (card, region) => findPrice(card, 'desktop-user', region)?.includes?.profileGb ?? '20',
      help: 'Files and settings kept for each user; the rate card says what is usual.',
    }),
    choice('profilesOn', 'profiles on', profilePlaces, {
      help: 'A pair of file servers stays up when one fails; a managed share needs no servers.',
      means: value =>
        Object.hasOwn(copiesOf, value)
          ? null
          : { meter: 'share-gb-month', variant: value.replace(/^share, /, ''), option: line => onShare(variantName(line)) },
    }),
    variantChoice('fileServer', 'file server', 'server-hour', {
      help: 'Size of each file server.',
      applies: inputs => Object.hasOwn(copiesOf, inputs.profilesOn ?? ''),
    }),
    number('held', 'licences held', {
      max: 100_000,
      whole: true,
      usual: '0',
      help: 'Users whose subscription already allows remote desktops: no access licence is bought for them.',
    }),
    paysField('server-hour'),
    words(
      'commitTo',
      'commits to',
      [quietHours, busyHours, anyNumber],
      'How many shared machines a commitment is for; a commitment is charged for all hours, used or not.',
      undefined,
      { applies: isShared },
    ),
    number('commitCount', 'that many', {
      whole: true,
      max: 100_000,
      usual: '0',
      help: 'Machines that are committed to; the others run on-demand.',
      applies: inputs => isShared(inputs) && inputs.commitTo === anyNumber,
    }),
  ],
  price(b) {
    const size = b.text('size')
    const { vcpu } = checkSize(b, size, b.text('system'), sharedHost)
    const line = b.line('server-hour', size, 'size')
    const users = b.number('users')
    const fleet = b.text('shape') === sharedMachines ? shared(b, vcpu) : each(b)
    const disks = multiply('GB of all disks', [fleet.most, b.number('diskGb')], 'GB')
    const bought = largerOf('licences bought', [subtract('users less licences held', [users, b.number('held')]), input('none', 0)])
    const profiles = profilesOf(b, users)
    const withServers = (choice: CommitChoice): CommitChoice =>
      profiles.servers ? { ...choice, parts: [...choice.parts, { running: 1, count: profiles.servers, beyond: null }] } : choice
    return {
      running: [b.charge(`${size}, on-demand`, line, fleet.hours), ...profiles.running],
      commitChoices: fleet.commit.map(withServers),
      recurring: [
        ...systemAndHost(b, vcpu, fleet.hours, b.text('system'), sharedHost),
        b.charge('disks', b.line('disk-gb-month', b.text('diskClass'), 'diskClass'), disks),
        ...profiles.recurring,
        b.charge('access licences', b.line('desktop-user', null, 'held'), bought),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count: users,
      unitHours: fleet.hours,
      amounts: [
        { unit: 'users', quantity: users },
        {
          unit: 'vCPU',
          quantity: multiply('vCPU', [fleet.most, input('vCPU each', vcpu)]),
          hours: multiply('vCPU hours', [input('vCPU each', vcpu), fleet.hours]),
        },
      ],
      each: { label: 'user', count: users },
      facts: [...fleet.facts, { label: 'licences needed', working: users }, { label: 'licences bought', working: bought }],
    }
  },
}

/** Where the profiles lie: on file servers that always run, or on a managed share. */
function profilesOf(b: Builder, users: Working): { servers: Working | null; running: Charge[]; recurring: Charge[] } {
  const gb = multiply('GB of all profiles', [users, b.number('profileGb')], 'GB')
  const on = b.text('profilesOn')
  const copies = Object.hasOwn(copiesOf, on) ? copiesOf[on]! : null
  if (copies === null)
    return {
      servers: null,
      running: [],
      recurring: [b.charge('profiles on the share', b.line('share-gb-month', on.replace(/^share, /, ''), 'profilesOn'), gb)],
    }
  const servers = input('file servers', copies)
  const size = b.text('fileServer')
  if (!findSize(b.card, size)) b.refuse('fileServer', `${b.card.provider} does not say how large ${size} is`)
  return {
    servers,
    running: [
      b.charge('file servers', b.line('server-hour', size, 'fileServer'), multiply('file server hours', [servers, b.allHours()], 'h')),
    ],
    recurring: [
      b.charge(
        'disks of the file servers',
        b.line('disk-gb-month', b.text('diskClass'), 'diskClass'),
        multiply('GB on the file servers', [servers, gb], 'GB'),
      ),
    ],
  }
}
