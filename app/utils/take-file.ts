import Papa from 'papaparse'
import { z } from 'zod'
import { invoicesTaken } from '../../shared/contracts/invoices'
import { measurementsTaken } from '../../shared/contracts/measurements'
import { rateCardLoaded } from '../../shared/contracts/reference-data'
import { ratesTaken } from '../../shared/contracts/spend-settings'
import { dayText } from '../../shared/words/days'
import { measurementsSaid } from '../../shared/words/measurements'
import { useFactsFile } from '../stores/facts-file'
import { useOrganisationFile } from '../stores/organisation-file'
import { client } from './client'

const linesOf = (text: string) => Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data
const cardSaid = ({ provider, validFrom, prices, replaced }: z.infer<typeof rateCardLoaded>) =>
  `rate card of ${provider} from ${dayText(validFrom)}: ${prices} prices${replaced ? ', in place of the one loaded before' : ''}`

/**
 * Files of the product's own that are no charges: by kind, what is done with the text, and what is said of it; null where somebody decides
 * first whether it is taken.
 */
export const takers = {
  'rate card': async (text: string) => cardSaid(await client.send('POST', 'rate-cards', JSON.parse(text), rateCardLoaded)),
  'rate card table': async (text: string) =>
    cardSaid(await client.send('POST', 'rate-cards/table', { lines: linesOf(text) }, rateCardLoaded)),
  'cost centres': (text: string, name: string) => useOrganisationFile().receive(name, text),
  'cost centre table': (text: string, name: string) => useOrganisationFile().receiveTable('centres', name, text),
  'rule table': (text: string, name: string) => useOrganisationFile().receiveTable('rules', name, text),
  lookup: (text: string, name: string) => useFactsFile().receiveLookup(name, text),
  measures: (text: string, name: string) => useFactsFile().receiveMeasures(name, text),
  'account tree': async (text: string) => {
    const counts = z.object({ accounts: z.number(), containers: z.number() })
    const { accounts, containers } = await client.send('PUT', 'spend/account-tree', JSON.parse(text), counts)
    return `account tree of ${accounts} accounts, tags of ${containers} containers`
  },
  'exchange rates': async (text: string) => {
    const { rates, changed } = await client.send('POST', 'rates/table', { lines: linesOf(text) }, ratesTaken)
    return `${rates} exchange rates, ${changed} of them new or changed`
  },
  invoices: async (text: string) =>
    `${(await client.send('POST', 'invoices/table', { lines: linesOf(text) }, invoicesTaken)).invoices} invoices`,
}

/** A file of measurements, which may be large: sent as it is. */
export async function takeMeasurements(file: File): Promise<string> {
  const query = new URLSearchParams({ file: file.name })
  return measurementsSaid(await client.upload('PUT', `measurements?${query}`, file, measurementsTaken))
}
