import { mailServer } from './server'

const host = process.env.HOST ?? '127.0.0.1'
const { smtp, http } = mailServer()
smtp.listen(Number(process.env.SMTP_PORT ?? 3025), host)
http.listen(Number(process.env.PORT ?? 3026), host)
