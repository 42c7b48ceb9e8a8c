import { Readable } from 'node:stream'
import { createTransport } from 'nodemailer'
import { ConnectorFailed } from './connector'

export type Mail = {
  to: string[]
  subject: string
  text: string
  files: { name: string; bytes: Uint8Array; mime: string }[]
  /** The same for every try: makes the mail's id, by which a reader's mailbox knows one that came twice. */
  key: string
}

const TIME_OUT_MS = 10_000
/**
 * Sends a mail over SMTP to the server named by RAIN_BARREL_SMTP (`smtp://host:port`).
 * @throws ConnectorFailed when it is not taken, or nobody knows whether it was.
 */
export async function sendMail({ to, subject, text, files, key }: Mail): Promise<void> {
  const url = process.env.RAIN_BARREL_SMTP
  if (!url) throw new ConnectorFailed('No mail server is set up: set RAIN_BARREL_SMTP to its address, such as smtp://localhost:1025', true)
  const transport = createTransport({
    url,
    connectionTimeout: TIME_OUT_MS,
    greetingTimeout: TIME_OUT_MS,
    socketTimeout: TIME_OUT_MS,
  } as never)
  let isHandedOver = false
  // read once the server has agreed to take the mail: from then on a silence says nothing of what became of it
  const contentOf = (bytes: Uint8Array) =>
    Readable.from(
      (function* () {
        isHandedOver = true
        yield Buffer.from(bytes)
      })(),
    )
  try {
    await transport.sendMail({
      from: process.env.RAIN_BARREL_MAIL_FROM || 'Rain Barrel <rain-barrel@localhost>',
      to,
      subject,
      text,
      messageId: `<${key}@rain-barrel>`,
      attachments: files.map(({ name, bytes, mime }) => ({ filename: name, content: contentOf(bytes), contentType: mime })),
    })
  } catch (error) {
    const sure = !isHandedOver || (error as { responseCode?: number }).responseCode !== undefined
    const what = sure ? 'The mail server did not take the mail' : 'the mail server broke off while it was handed the mail'
    throw new ConnectorFailed(`${what}: ${(error as Error).message}`, sure)
  } finally {
    transport.close()
  }
}
