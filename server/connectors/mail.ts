import { createTransport } from 'nodemailer'
import { ConnectorFailed } from './cloud-connector'

export type Mail = { to: string[]; subject: string; text: string; file: { name: string; bytes: Uint8Array; mime: string } }

const TIME_OUT_MS = 10_000

/** Sends a mail over SMTP to the server named by RAIN_BARREL_SMTP (`smtp://host:port`). @throws ConnectorFailed when it is not taken. */
export async function sendMail({ to, subject, text, file }: Mail): Promise<void> {
  const url = process.env.RAIN_BARREL_SMTP
  if (!url) throw new ConnectorFailed('No mail server is set up: set RAIN_BARREL_SMTP to its address, such as smtp://localhost:1025', true)
  const transport = createTransport({ url, connectionTimeout: TIME_OUT_MS, socketTimeout: TIME_OUT_MS } as never)
  try {
    await transport.sendMail({
      from: process.env.RAIN_BARREL_MAIL_FROM || 'Rain Barrel <rain-barrel@localhost>',
      to,
      subject,
      text,
      attachments: [{ filename: file.name, content: Buffer.from(file.bytes), contentType: file.mime }],
    })
  } catch (error) {
    throw new ConnectorFailed(`The mail server did not take the mail: ${(error as Error).message}`, true)
  } finally {
    transport.close()
  }
}
