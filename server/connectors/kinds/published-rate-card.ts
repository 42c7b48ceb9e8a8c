import { rateCardSchema } from '../../../core/ratecard/rate-card'
import type { ConnectorKind } from '../connector'
import { httpCaller } from '../http'

/** A rate card that someone publishes as a JSON file at an address: it has prices and nothing else. */
export const publishedRateCard: ConnectorKind = {
  kind: 'published-rate-card',
  label: 'A published rate card',
  help: 'The whole address of a rate card in JSON (docs/formats/rate-card.md), such as https://example.org/prices.json.',
  can: ['rate card'],
  whose: async ({ name, address, secret }) => (await httpCaller(name, address, secret).json(rateCardSchema, 'GET', '')).provider,
  connect({ name, provider, address, secret }) {
    const newest = () => httpCaller(provider, address, secret).json(rateCardSchema, 'GET', '')
    return { name, provider, now: async () => (await newest()).validFrom, can: { 'rate card': { newest } } }
  },
}
