import { createServer, type Server } from 'node:http'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { inboxPage } from '../inbox-page'

export type ReceivedMail = {
  from: string
  to: string[]
  subject: string
  text: string
  attachments: { name: string; bytes: number; content: string }[]
}

/** A small mail server: takes every mail over SMTP and shows over HTTP what has come: as a page, and at `GET /messages`, newest first. */
export function mailServer(): { smtp: SMTPServer; http: Server; received: ReceivedMail[] } {
  const received: ReceivedMail[] = []
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, session, done) {
      simpleParser(stream).then(
        mail => {
          received.unshift({
            from: mail.from?.text ?? '',
            to: session.envelope.rcptTo.map(recipient => recipient.address),
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            attachments: mail.attachments.map(({ filename, size, content }) => ({
              name: filename ?? '',
              bytes: size,
              content: content.toString('base64'),
            })),
          })
          done()
        },
        (error: Error) => done(error),
      )
    },
  })
  const http = createServer((request, response) => {
    if (request.url === '/') {
      response.setHeader('content-type', 'text/html; charset=utf-8')
      const shown = received.map(({ to, subject, text }) => ({ for: to.join(', '), about: subject, text }))
      return void response.end(inboxPage('The mail of Skerry Lines', shown))
    }
    response.setHeader('content-type', 'application/json')
    response.end(JSON.stringify({ messages: received }))
  })
  return { smtp, http, received }
}
