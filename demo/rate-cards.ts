import { Decimal, decimalText } from '../core/money/decimal'
import { meters, type Meter, type Unit } from '../core/ratecard/meters'
import type { CommitmentPrice, PriceLine, RateCard, ServerSize } from '../core/ratecard/rate-card'

/** Digits that a printed price list has. */
const printed = (value: number, decimals: number) => decimalText(new Decimal(value.toFixed(decimals)))

const HOURS_A_YEAR = 8760
// What a commitment costs of the on-demand price, by years and upfront: longer and more upfront is cheaper.
const commitmentShares = [
  { years: 1, paid: 'paid monthly', share: 0.7 },
  { years: 1, paid: 'part in advance', share: 0.67 },
  { years: 1, paid: 'all in advance', share: 0.65 },
  { years: 3, paid: 'paid monthly', share: 0.52 },
  { years: 3, paid: 'part in advance', share: 0.49 },
  { years: 3, paid: 'all in advance', share: 0.46 },
] as const

function commitments(hourly: number): CommitmentPrice[] {
  return commitmentShares.map(({ years, paid, share }) => {
    const effective = Number(printed(hourly * share, 4))
    const paidUpfront = paid === 'paid monthly' ? 0 : paid === 'part in advance' ? 0.5 : 1
    const hourlyPrice = Number(printed(effective * (1 - paidUpfront), 4))
    const upfrontPrice = new Decimal(printed(effective, 4)).minus(printed(hourlyPrice, 4)).times(HOURS_A_YEAR * years)
    return { years, paid, upfrontPrice: decimalText(upfrontPrice), hourlyPrice: printed(hourlyPrice, 4) }
  })
}

type Region = RateCard['regions'][number] & { factor: number }
type More = Partial<PriceLine>
const committedTo = new Set<Meter>(['server-hour', 'database-hour'])

/** Writes a price into every region, dearer or cheaper by the region's factor. */
function cardMaker(code: string, regions: Region[]) {
  const prices: PriceLine[] = []
  const short = (text: string) => text.replace(/[^a-z0-9]/gi, '').toUpperCase()
  const put = (service: string, meter: string, variant: string | null, unit: Unit, price: number, decimals: number, more: More) => {
    for (const region of regions) {
      const tiers = (more.tiers ?? [{ from: '0', price: String(price) }]).map(tier => ({
        from: tier.from,
        price: printed(Number(tier.price) * region.factor, decimals),
      }))
      prices.push({
        sku: `${code}-${short(region.id)}-${short(meter)}${variant ? `-${short(variant)}` : ''}`,
        service,
        meter,
        variant,
        region: region.id,
        unit,
        tiering: 'graduated',
        ...more,
        tiers,
        ...(committedTo.has(meter as Meter) && { commitments: commitments(Number(tiers[0]!.price)) }),
      })
    }
  }
  return {
    prices,
    regions: regions.map(({ factor: _, ...region }) => region),
    everywhere: (service: string, meter: Meter, variant: string | null, price: number, decimals: number, more: More = {}) =>
      put(service, meter, variant, meters[meter].unit, price, decimals, more),
    /** A price of which no component kind knows more than its unit. */
    further: (service: string, meter: string, variant: string | null, unit: Unit, price: number, decimals: number, more: More = {}) =>
      put(service, meter, variant, unit, price, decimals, more),
    /** Shares of the spend are the same in every region. */
    support(service: string, plan: string, minimumCharge: string, tiers: PriceLine['tiers'], serviceLevel: string) {
      for (const region of regions)
        prices.push({
          sku: `${code}-${short(region.id)}-SUPPORT-${short(plan)}`,
          service,
          meter: 'support-share',
          variant: plan,
          region: region.id,
          unit: 'Share of Spend',
          tiering: 'graduated',
          tiers,
          minimumCharge,
          serviceLevel,
        })
    },
  }
}

// lines of server sizes: price per vCPU and per GB an hour
const lines = {
  reed: { gbPerVcpu: 2, vcpu: 0.0181, gb: 0.0044, sizes: [1, 2, 4, 8, 16], architecture: 'x86-64' },
  otter: { gbPerVcpu: 4, vcpu: 0.0192, gb: 0.0048, sizes: [2, 4, 6, 8, 16], architecture: 'x86-64' },
  heron: { gbPerVcpu: 8, vcpu: 0.0205, gb: 0.0052, sizes: [2, 4, 8, 16], architecture: 'x86-64' },
  teal: { gbPerVcpu: 4, vcpu: 0.0153, gb: 0.0039, sizes: [2, 4, 8, 16], architecture: 'arm64' },
} as const
const open = 'open, no licence'
const licensed = 'Thrumwood Server'
const ownLicence = `${licensed}, own licence`

function brackwater(): RateCard {
  const card = cardMaker('BW', [
    { id: 'north-fjord', name: 'North Fjord', factor: 1, residency: 'Northern Isles', zones: 3 },
    { id: 'low-coast', name: 'Low Coast', factor: 0.96, residency: 'Northern Isles', zones: 3 },
    { id: 'east-delta', name: 'East Delta', factor: 1.07, residency: 'Eastern Shores', zones: 3 },
    { id: 'far-cape', name: 'Far Cape', factor: 1.21, residency: 'Southern Capes', zones: 2 },
  ])
  const serverSizes = Object.entries(lines).flatMap(([line, { gbPerVcpu, sizes, architecture }]) =>
    sizes.map((vcpu): ServerSize => ({
      size: `${line}-${vcpu}x${vcpu * gbPerVcpu}`,
      vcpu,
      memoryGb: vcpu * gbPerVcpu,
      architecture,
      dedicated: vcpu >= 4,
      // the licensed system wants two vCPU of the broad architecture; the smallest machines have no fast storage lanes
      ...((vcpu < 2 || line === 'teal') && { systems: [open] }),
      ...(vcpu < 2 && { diskClasses: ['plain', 'plain, across zones', 'steady'] }),
    })),
  )
  for (const { size, vcpu, memoryGb } of serverSizes) {
    const line = lines[size.split('-')[0] as keyof typeof lines]
    card.everywhere('Servers', 'server-hour', size, vcpu * line.vcpu + memoryGb * line.gb, 4, {
      serviceLevel: '99.9 % a month',
      excludes: 'disks, transfer, licences',
    })
  }
  card.everywhere('Servers', 'system-vcpu-hour', licensed, 0.0165, 4, { excludes: 'access licences of users' })
  card.everywhere('Servers', 'system-vcpu-hour', ownLicence, 0, 4, { excludes: 'the licence itself' })
  card.everywhere('Servers', 'dedicated-vcpu-hour', null, 0.0031, 4)
  for (const size of serverSizes.filter(s => s.vcpu >= 2 && s.vcpu <= 16 && !s.size.startsWith('reed') && !s.size.startsWith('teal'))) {
    const line = lines[size.size.split('-')[0] as keyof typeof lines]
    card.everywhere('Managed database', 'database-hour', size.size, (size.vcpu * line.vcpu + size.memoryGb * line.gb) * 1.85, 4, {
      serviceLevel: '99.95 % a month in two zones',
      excludes: 'storage, backup beyond the storage',
    })
  }
  card.everywhere('Managed database', 'database-engine-vcpu-hour', 'Quillbase', 0.118, 4)
  card.everywhere('Managed database', 'database-engine-vcpu-hour', 'Quillbase, own licence', 0, 4, { excludes: 'the licence itself' })
  card.everywhere('Managed database', 'database-gb-month', null, 0.125, 4, { includes: { iops: '3000' } })
  card.everywhere('Managed database', 'database-iops-month', null, 0.071, 4)
  card.everywhere('Managed database', 'database-backup-gb-month', null, 0.061, 4)
  for (const [tier, price, gb, most] of [
    ['brook', 0.021, 5, 250],
    ['stream', 0.064, 50, 1000],
    ['river', 0.205, 250, 4000],
    ['delta', 0.74, 500, 16000],
  ] as const) {
    card.everywhere('Capacity database', 'database-tier-hour', tier, price, 4, {
      includes: { storageGb: String(gb), storageGbMost: String(most) },
      serviceLevel: '99.9 % a month',
    })
  }
  card.everywhere('Capacity database', 'database-tier-gb-month', null, 0.142, 4)
  for (const [variant, price, includes] of [
    ['plain', 0.045, { iops: '500', mbps: '60', iopsMost: '500', mbpsMost: '60', zones: '1' }],
    ['plain, old', 0.062, { iops: '300', mbps: '40', iopsMost: '300', mbpsMost: '40', zones: '1' }],
    ['steady', 0.088, { iops: '3000', mbps: '125', iopsMost: '16000', mbpsMost: '1000', zones: '1' }],
    ['swift', 0.132, { iops: '0', mbps: '500', iopsMost: '80000', mbpsMost: '4000', zones: '1' }],
    ['plain, across zones', 0.058, { iops: '500', mbps: '60', iopsMost: '500', mbpsMost: '60', zones: '2' }],
    ['steady, across zones', 0.121, { iops: '3000', mbps: '125', iopsMost: '16000', mbpsMost: '1000', zones: '2' }],
  ] as const)
    card.everywhere('Disks', 'disk-gb-month', variant, price, 4, {
      includes,
      serviceLevel: variant.includes('across') ? '99.99 % a month' : '99.9 % a month',
    })
  for (const [variant, iops, mbps] of [
    ['steady', 0.0052, 0.041],
    ['swift', 0.064, 0.036],
    ['steady, across zones', 0.0071, 0.056],
  ] as const) {
    card.everywhere('Disks', 'disk-iops-month', variant, iops, 5)
    card.everywhere('Disks', 'disk-throughput-month', variant, mbps, 5)
  }
  for (const variant of ['plain', 'plain, across zones'] as const) card.everywhere('Disks', 'disk-transactions', variant, 0.052, 4)
  card.everywhere('Snapshots', 'snapshot-gb-month', null, 0.049, 4)
  card.everywhere('Object storage', 'object-gb-month', 'ready', 0, 5, {
    tiers: [
      { from: '0', price: '0.0228' },
      { from: '51200', price: '0.0217' },
      { from: '512000', price: '0.0206' },
    ],
    includes: { minimumDays: '0', hoursToFetch: '0' },
    serviceLevel: '99.95 % a month',
  })
  card.everywhere('Object storage', 'object-gb-month', 'cool', 0.0124, 5, {
    includes: { minimumDays: '30', hoursToFetch: '0' },
    serviceLevel: '99.9 % a month',
    excludes: 'fetching',
  })
  card.everywhere('Object storage', 'object-gb-month', 'deep', 0.0036, 5, {
    includes: { minimumDays: '180', hoursToFetch: '12' },
    serviceLevel: '99.9 % a month, hours to fetch',
    excludes: 'fetching',
  })
  card.everywhere('Object storage', 'object-gb-month', 'self-moving', 0.0192, 5, { serviceLevel: '99.9 % a month' })
  for (const [variant, write, read] of [
    ['ready', 0.0052, 0.00042],
    ['cool', 0.0096, 0.00095],
    ['deep', 0.031, 0.0044],
    ['self-moving', 0.0052, 0.00042],
  ] as const) {
    card.everywhere('Object storage', 'object-write-1000', variant, write, 6)
    card.everywhere('Object storage', 'object-read-1000', variant, read, 6)
  }
  card.everywhere('Object storage', 'object-retrieval-gb', 'cool', 0.0098, 5)
  card.everywhere('Object storage', 'object-retrieval-gb', 'deep', 0.0212, 5)
  card.everywhere('Object storage', 'object-watch-1000', 'self-moving', 0.0024, 5)
  card.everywhere('Outgoing transfer', 'transfer-out-gb', null, 0, 4, {
    tiers: [
      { from: '0', price: '0.085' },
      { from: '10240', price: '0.071' },
      { from: '51200', price: '0.058' },
    ],
    freeAllowance: '100',
  })
  card.everywhere('Inner transfer', 'transfer-zone-gb', null, 0.0105, 4)
  card.everywhere('Inner transfer', 'transfer-region-gb', null, 0.021, 4)
  card.everywhere('Gateways', 'gateway-hour', null, 0.0525, 4, { excludes: 'transfer to the internet' })
  card.everywhere('Gateways', 'gateway-gb', null, 0.044, 4)
  card.everywhere('Load balancers', 'load-balancer-hour', null, 0.0245, 4, { serviceLevel: '99.99 % a month' })
  card.everywhere('Load balancers', 'load-balancer-gb', null, 0.0081, 4)
  card.everywhere('Log search', 'logs-ingested-gb', null, 0.48, 4)
  card.everywhere('Log search', 'logs-kept-gb-month', null, 0.029, 4)
  card.everywhere('Log search', 'logs-searched-gb', null, 0.0125, 5)
  card.everywhere('Watching', 'metric-month', null, 0, 4, {
    tiers: [
      { from: '0', price: '0.27' },
      { from: '10000', price: '0.09' },
    ],
    freeAllowance: '10',
  })
  card.everywhere('Watching', 'alarm-month', null, 0.095, 4, { freeAllowance: '10' })
  cardOfServices(card, { compute: 0.0000161, call: 0.19, edge: 1.8 })
  for (const [tier, price] of [
    ['shed', 0.012],
    ['boathouse', 0.058],
    ['wharf', 0.164],
  ] as const)
    card.everywhere('Application hosting', 'app-hour', tier, price, 4, { serviceLevel: '99.95 % a month' })
  for (const [quality, minute, gb] of [
    ['small', 0.0068, 0.41],
    ['full', 0.0142, 0.36],
    ['grand', 0.0305, 0.31],
  ] as const) {
    card.everywhere('Media', 'encoding-minute', quality, minute, 4)
    card.everywhere('Media', 'encoding-gb', quality, gb, 4)
  }
  card.everywhere('Media', 'indexing-minute', null, 0.021, 4)
  card.everywhere('Desktop access', 'desktop-user', null, 4.6, 4, {
    includes: { profileGb: '20', usersPerVcpuLittle: '7', usersPerVcpuUsual: '4.5', usersPerVcpuMuch: '2.5', usersPerVcpuMost: '1.2' },
  })
  card.everywhere('File shares', 'share-gb-month', 'calm', 0.071, 4, { includes: { mbps: '100' }, serviceLevel: '99.9 % a month' })
  card.everywhere('File shares', 'share-gb-month', 'lively', 0.164, 4, { includes: { mbps: '400' }, serviceLevel: '99.95 % a month' })
  card.everywhere('File shares', 'share-throughput-month', 'calm', 0.21, 4)
  card.everywhere('File shares', 'share-throughput-month', 'lively', 0.29, 4)
  card.everywhere('Recovery', 'recovery-server', null, 21.5, 4, { excludes: 'waiting copies, transfer, drills' })
  card.everywhere('Licences', 'licence-seat', 'Fernsuite', 11.4, 4, { includes: { broughtAlong: '1' } })
  card.everywhere('Licences', 'licence-core', 'Quillbase', 148, 4, { includes: { broughtAlong: '1' } })
  card.further('Cache', 'cache-node-hour', '6 GB', 'Hours', 0.056, 4, { charged: 'existing' })
  card.further('Cache', 'cache-node-hour', '24 GB', 'Hours', 0.212, 4, { charged: 'existing' })
  card.further('Text search', 'search-node-hour', null, 'Hours', 0.118, 4, { charged: 'existing' })
  card.further('Content delivery', 'delivery-gb', null, 'GB', 0, 4, {
    tiers: [
      { from: '0', price: '0.061' },
      { from: '10240', price: '0.049' },
    ],
  })
  card.further('Message queue', 'queue-message', null, '1000000 Requests', 0.42, 4)
  card.further('Keys', 'key-month', null, 'Keys', 0.95, 4, { charged: 'existing' })
  card.further('Certificates', 'certificate-month', null, 'Certificates', 0.7, 4, { charged: 'existing' })
  card.further('Site tunnels', 'vpn-hour', null, 'Hours', 0.048, 4, { charged: 'existing' })
  card.further('Firewall', 'firewall-hour', null, 'Hours', 0.92, 4, { charged: 'existing' })
  card.further('Firewall', 'firewall-gb', null, 'GB', 0.017, 4)
  card.further('Name service', 'dns-zone-month', null, 'Units', 0.46, 4, { charged: 'existing' })
  card.further('Addresses', 'address-hour', null, 'Hours', 0.0044, 4, { charged: 'existing' })
  card.further('Container clusters', 'cluster-hour', null, 'Hours', 0.087, 4, { charged: 'existing' })
  card.further('Graphics machines', 'gpu-hour', 'one graphics unit', 'Hours', 0.68, 4, { charged: 'existing' })
  card.support('Support', 'hearing', '29', [{ from: '0', price: '0.03' }], 'an answer within a day')
  card.support(
    'Support',
    'listening',
    '95',
    [
      { from: '0', price: '0.09' },
      { from: '10000', price: '0.065' },
      { from: '80000', price: '0.045' },
    ],
    'an answer within an hour',
  )
  return { provider: 'Brackwater Cloud', currency: 'EUR', validFrom: '2025-11-01', regions: card.regions, serverSizes, prices: card.prices }
}

/** What both clouds have alike: functions and identity. */
function cardOfServices(card: ReturnType<typeof cardMaker>, { compute, call, edge }: { compute: number; call: number; edge: number }) {
  card.everywhere('Functions', 'function-gb-second', null, compute, 11, { freeAllowance: '400000' })
  card.everywhere('Functions', 'function-call', null, call, 4, { freeAllowance: '1' })
  card.everywhere('Functions', 'function-gb-second', 'at the edge', compute * 2.6, 11)
  card.everywhere('Functions', 'function-call', 'at the edge', call * edge, 4)
  card.everywhere('Functions', 'function-warm-gb-hour', null, compute * 3600 * 0.28, 6)
  card.everywhere('Identity', 'identity-user', null, 0, 5, {
    tiers: [
      { from: '0', price: '0.0046' },
      { from: '100000', price: '0.0038' },
      { from: '1000000', price: '0.0031' },
    ],
    freeAllowance: '10000',
  })
  card.everywhere('Identity', 'identity-feature-user', 'second factor', 0.012, 5)
  card.everywhere('Identity', 'identity-feature-user', 'risk watch', 0.031, 5)
}

function larkfield(): RateCard {
  const card = cardMaker('LK', [
    { id: 'lk-alpha', name: 'Alpha', factor: 1, residency: 'Northern Isles', zones: 2 },
    { id: 'lk-beta', name: 'Beta', factor: 1.04, residency: 'Western Banks', zones: 2 },
  ])
  const names = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
  const shape = [
    [1, 4],
    [2, 8],
    [4, 16],
    [4, 32],
    [8, 32],
    [8, 64],
    [16, 64],
    [16, 128],
    [32, 256],
  ] as const
  const serverSizes = names.map((name, i): ServerSize => ({
    size: `slate ${name}`,
    vcpu: shape[i]![0],
    memoryGb: shape[i]![1],
    architecture: 'x86-64',
    dedicated: i > 3,
    ...(i === 0 && { systems: [open] }),
  }))
  for (const { size, vcpu, memoryGb } of serverSizes)
    card.everywhere('Machines', 'server-hour', size, vcpu * 0.0211 + memoryGb * 0.0053, 4, {
      serviceLevel: '99.9 % a month',
      excludes: 'storage, network out, licences',
    })
  card.everywhere('Machines', 'system-vcpu-hour', licensed, 0.0185, 4)
  card.everywhere('Machines', 'system-vcpu-hour', ownLicence, 0, 4)
  card.everywhere('Machines', 'dedicated-vcpu-hour', null, 0.0036, 4)
  for (const { size, vcpu, memoryGb } of serverSizes.slice(1, 8))
    card.everywhere('Hosted database', 'database-hour', size, (vcpu * 0.0211 + memoryGb * 0.0053) * 1.9, 4, {
      serviceLevel: '99.9 % a month',
    })
  card.everywhere('Hosted database', 'database-engine-vcpu-hour', 'Quillbase', 0.131, 4)
  card.everywhere('Hosted database', 'database-engine-vcpu-hour', 'Quillbase, own licence', 0, 4)
  card.everywhere('Hosted database', 'database-gb-month', null, 0.134, 4, { includes: { iops: '2000' } })
  card.everywhere('Hosted database', 'database-iops-month', null, 0.08, 4)
  card.everywhere('Hosted database', 'database-backup-gb-month', null, 0.068, 4)
  for (const [tier, price, gb] of [
    ['shale', 0.028, 10],
    ['flint', 0.088, 60],
    ['granite', 0.29, 300],
  ] as const)
    card.everywhere('Flat database', 'database-tier-hour', tier, price, 4, { includes: { storageGb: String(gb) } })
  card.everywhere('Flat database', 'database-tier-gb-month', null, 0.151, 4)
  for (const [variant, price, includes] of [
    ['standard', 0.052, { iops: '600', mbps: '80', iopsMost: '600', mbpsMost: '80', zones: '1' }],
    ['fast', 0.14, { iops: '5000', mbps: '300', iopsMost: '64000', mbpsMost: '2000', zones: '1' }],
  ] as const)
    card.everywhere('Block storage', 'disk-gb-month', variant, price, 4, { includes })
  card.everywhere('Block storage', 'disk-iops-month', 'fast', 0.0068, 5)
  card.everywhere('Block storage', 'disk-throughput-month', 'fast', 0.045, 5)
  card.everywhere('Block copies', 'snapshot-gb-month', null, 0.054, 4)
  card.everywhere('Object store', 'object-gb-month', 'hot', 0.0241, 5, { includes: { minimumDays: '0', hoursToFetch: '0' } })
  card.everywhere('Object store', 'object-gb-month', 'cold', 0.0102, 5, { includes: { minimumDays: '90', hoursToFetch: '0' } })
  for (const [variant, write, read] of [
    ['hot', 0.0055, 0.0004],
    ['cold', 0.011, 0.0011],
  ] as const) {
    card.everywhere('Object store', 'object-write-1000', variant, write, 6)
    card.everywhere('Object store', 'object-read-1000', variant, read, 6)
  }
  card.everywhere('Object store', 'object-retrieval-gb', 'cold', 0.0115, 5)
  card.everywhere('Network out', 'transfer-out-gb', null, 0, 4, {
    tiers: [
      { from: '0', price: '0.11' },
      { from: '10240', price: '0.08' },
    ],
    freeAllowance: '200',
  })
  card.everywhere('Network within', 'transfer-zone-gb', null, 0.012, 4)
  card.everywhere('Network within', 'transfer-region-gb', null, 0.024, 4)
  card.everywhere('Translation gateways', 'gateway-hour', null, 0.056, 4)
  card.everywhere('Translation gateways', 'gateway-gb', null, 0.047, 4)
  card.everywhere('Balancers', 'load-balancer-hour', null, 0.027, 4)
  card.everywhere('Balancers', 'load-balancer-gb', null, 0.0085, 4)
  card.everywhere('Logs', 'logs-ingested-gb', null, 0.53, 4)
  card.everywhere('Logs', 'logs-kept-gb-month', null, 0.034, 4)
  card.everywhere('Logs', 'metric-month', null, 0.31, 4)
  card.everywhere('Logs', 'alarm-month', null, 0.11, 4)
  cardOfServices(card, { compute: 0.0000172, call: 0.21, edge: 1.6 })
  for (const [tier, price] of [
    ['cabin', 0.015],
    ['lodge', 0.067],
  ] as const)
    card.everywhere('Hosted applications', 'app-hour', tier, price, 4)
  for (const [quality, minute, gb] of [
    ['standard', 0.0125, 0.39],
    ['high', 0.029, 0.34],
  ] as const) {
    card.everywhere('Media', 'encoding-minute', quality, minute, 4)
    card.everywhere('Media', 'encoding-gb', quality, gb, 4)
  }
  card.everywhere('Media', 'indexing-minute', null, 0.024, 4)
  card.everywhere('Desktops', 'desktop-user', null, 5.1, 4, {
    includes: { profileGb: '25', usersPerVcpuLittle: '6.5', usersPerVcpuUsual: '4', usersPerVcpuMuch: '2.2', usersPerVcpuMost: '1.1' },
  })
  card.everywhere('File space', 'share-gb-month', 'general', 0.088, 4, { includes: { mbps: '150' } })
  card.everywhere('File space', 'share-throughput-month', 'general', 0.25, 4)
  card.everywhere('Recovery', 'recovery-server', null, 24, 4)
  card.everywhere('Marketplace', 'licence-seat', 'Mossdesk', 17.5, 4, { includes: { broughtAlong: '0' } })
  card.everywhere('Marketplace', 'licence-core', 'Quillbase', 161, 4, { includes: { broughtAlong: '1' } })
  card.everywhere('Warehouse', 'analytics-scanned-tb', null, 5.4, 4)
  card.further('Memory store', 'cache-node-hour', '6 GB', 'Hours', 0.061, 4, { charged: 'existing' })
  card.further('Addresses', 'address-hour', null, 'Hours', 0.005, 4, { charged: 'existing' })
  card.further('Key store', 'key-month', null, 'Keys', 1.05, 4, { charged: 'existing' })
  card.support('Assistance', 'basic', '35', [{ from: '0', price: '0.035' }], 'an answer within a day')
  card.support(
    'Assistance',
    'prompt',
    '110',
    [
      { from: '0', price: '0.1' },
      { from: '12000', price: '0.07' },
    ],
    'an answer within two hours',
  )
  return {
    provider: 'Larkfield Compute',
    currency: 'USD',
    validFrom: '2025-11-01',
    regions: card.regions,
    serverSizes,
    prices: card.prices,
  }
}

/** The own data centre: what its racks, power and people cost, by what runs on them. Nothing can be committed to. */
function pierHouse(): RateCard {
  const card = cardMaker('PH', [{ id: 'pier-house', name: 'Pier House', factor: 1, residency: 'Northern Isles', zones: 1 }])
  const serverSizes: ServerSize[] = [
    [4, 16],
    [8, 32],
    [16, 64],
  ].map(([vcpu, memoryGb]) => ({ size: `rack-${vcpu}x${memoryGb}`, vcpu: vcpu!, memoryGb: memoryGb!, architecture: 'x86-64' }))
  for (const { size, vcpu, memoryGb } of serverSizes)
    card.everywhere('Rack servers', 'server-hour', size, vcpu * 0.0238 + memoryGb * 0.0041, 4, { excludes: 'licences' })
  card.everywhere('Rack servers', 'system-vcpu-hour', ownLicence, 0, 4)
  card.everywhere('Storage array', 'disk-gb-month', 'array', 0.068, 4, { includes: { iops: '4000', mbps: '200', zones: '1' } })
  card.everywhere('Storage array', 'snapshot-gb-month', null, 0.031, 4)
  card.everywhere('Storage array', 'share-gb-month', 'folders', 0.074, 4)
  card.everywhere('Line out', 'transfer-out-gb', null, 0.012, 4)
  card.everywhere('Line out', 'load-balancer-hour', null, 0.018, 4)
  card.further('Administrators', 'administrator-hour', null, 'Hours', 62, 4, { charged: 'use' })
  return {
    provider: 'Pier House DC',
    currency: 'EUR',
    validFrom: '2025-11-01',
    regions: card.regions,
    serverSizes,
    prices: card.prices.map(({ commitments: _, ...line }) => line),
  }
}

/** The version that Brackwater has announced: servers cheaper, fast disks and logs dearer, an old disk class gone, a new cache size. */
function brackwaterAnnounced(before: RateCard): RateCard {
  const change = (line: PriceLine, factor: number, decimals: number): PriceLine => {
    const tiers = line.tiers.map(tier => ({ ...tier, price: printed(Number(tier.price) * factor, decimals) }))
    return { ...line, tiers, ...(line.commitments && { commitments: commitments(Number(tiers[0]!.price)) }) }
  }
  const prices = before.prices
    .filter(line => line.variant !== 'plain, old')
    .flatMap((line): PriceLine[] => {
      if (line.meter === 'server-hour') return [change(line, line.variant!.startsWith('teal') ? 0.95 : 0.98, 4)]
      if (line.meter === 'disk-gb-month' && line.variant === 'swift') return [change(line, 1.06, 4)]
      if (line.meter === 'logs-ingested-gb') return [change(line, 1.05, 4)]
      if (line.meter === 'transfer-out-gb') return [{ ...line, freeAllowance: '150' }]
      if (line.meter === 'cache-node-hour' && line.variant === '24 GB')
        return [line, { ...change(line, 2, 4), sku: `${line.sku.replace('24GB', '48GB')}`, variant: '48 GB' }]
      return [line]
    })
  return { ...before, validFrom: '2026-12-01', prices }
}

export const brackwaterCard = brackwater()
export const larkfieldCard = larkfield()
export const pierHouseCard = pierHouse()
export const brackwaterNextCard = brackwaterAnnounced(brackwaterCard)
