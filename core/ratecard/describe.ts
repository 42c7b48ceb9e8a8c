import { meterFacts, type Charged } from './meters'
import type { PriceLine, RateCard } from './rate-card'

/** Whether a line is charged for existing or for use: as the card says, else as its meter is; use when nobody knows. */
export function chargedFor(line: Pick<PriceLine, 'meter' | 'charged'>): Charged {
  return line.charged ?? meterFacts(line.meter)?.charged ?? 'use'
}

/** What a line is for in plain words, made from its parts: `Servers otter-6x24 in Low Coast: running, hours`. */
export function describeLine(line: PriceLine, card: RateCard): string {
  const region = card.regions.find(r => r.id === line.region)?.name ?? line.region
  return `${line.service}${line.variant ? ` ${line.variant}` : ''} in ${region}: ${meterFacts(line.meter)?.words ?? `${line.meter.replaceAll('-', ' ')}, per ${line.unit}`}`
}
