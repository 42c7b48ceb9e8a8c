import type { InvoiceInput } from '../../shared/contracts/spend-settings'
import { notFound } from '../problems/problem'
import { JsonBytes } from '../json-bytes'
import { ratesText } from '../stores/beside'
import { removeInvoice, saveInvoices } from '../stores/invoices'
import { saveRates } from '../stores/rates'
import { reconcileInvoices } from '../use-cases/reconcile-invoices'
import type { EngineWork } from './engine-work'

/** What charges are held against and converted with: invoices and exchange rates. */
export class Invoices {
  constructor(private readonly work: EngineWork) {}

  /** Invoices, each held against its loaded charges. */
  async list() {
    return { invoices: await reconcileInvoices(this.work) }
  }

  /** Keeps invoices, all or none; one of the same issuer and number is replaced. */
  async save(invoices: InvoiceInput[]) {
    await saveInvoices(this.work.database.db, invoices, this.work.asker.id)
    return { invoices: invoices.length }
  }

  async remove(id: number) {
    if (!(await removeInvoice(this.work.database.db, id))) throw notFound('invoice', 'It may have been deleted already.')
    return { id }
  }

  /** Exchange rates, as they are kept. */
  async rates() {
    return new JsonBytes<never>(`{"rates":${await ratesText(this.work.database)}}`)
  }

  /** Takes exchange rates, all of them or none. */
  async takeRates(rates: Parameters<typeof saveRates>[1]) {
    const changed = await saveRates(this.work.database, rates, this.work.asker.id)
    await this.work.refreshReference()
    return { rates: rates.count, changed }
  }
}
