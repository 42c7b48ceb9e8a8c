import { ConnectorFailed } from './connector'
import { httpCaller } from './http'

const TIME_OUT_MS = 10_000

/**
 * Writes a message to a chat by the webhook that RAIN_BARREL_CHAT names: `{ "text": …, "id": … }` as JSON. Source: common practice, no
 * source.
 * @param key the same for every try: a chat that keeps ids knows a message that comes twice.
 * @throws ConnectorFailed when it is not taken, or nobody knows whether it was.
 */
export async function postChat(text: string, key: string): Promise<void> {
  const address = process.env.RAIN_BARREL_CHAT
  if (!address) throw new ConnectorFailed('No chat is set up: set RAIN_BARREL_CHAT to the address of its webhook', true)
  await httpCaller('The chat', address, null).call('POST', '', {}, { timeOutMs: TIME_OUT_MS, body: { text, id: key } })
}
