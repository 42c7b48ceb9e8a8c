import { act } from './act'
import { actBatch } from './act-batch'
import { bill } from './bill'
import type { AnyJobKind } from './kind'
import { happened } from './happened'
import { load } from './load'
import { lookForSavings } from './look-for-savings'
import { mail } from './mail'
import { savingsListMail } from './savings-list-mail'
import { registerJobKind } from './register'
import { rateCard } from './rate-card'
import { orderChoice } from './order-choice'
import { standingOrder } from './standing-order'
import { statementMail } from './statement-mail'
import { undo } from './undo'
import { watchedFolder } from './watched-folder'

/** Every kind of thing that runs by itself or takes long. */
export const jobKinds: readonly AnyJobKind[] = [
  load,
  watchedFolder,
  bill,
  rateCard,
  mail,
  statementMail,
  savingsListMail,
  registerJobKind,
  happened,
  lookForSavings,
  act,
  actBatch,
  undo,
  standingOrder,
  orderChoice,
]
