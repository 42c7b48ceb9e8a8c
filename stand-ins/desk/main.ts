import { deskServer } from './server'

const server = deskServer()
server.listen(Number(process.env.PORT || 3006), process.env.HOST || '127.0.0.1')
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    server.closeAllConnections()
    server.close(() => process.exit(0))
  })
}
