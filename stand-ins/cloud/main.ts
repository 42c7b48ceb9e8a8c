import { cloudServer } from './server'

const host = process.env.HOST || '127.0.0.1'
const port = Number(process.env.PORT || 3001)
const server = cloudServer(process.env.STAND_IN_STATE || '.data/stand-in-cloud.json', process.env.STAND_IN_TOKEN, { isMadeAgain: true })
server.listen(port, host)
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    server.closeAllConnections()
    server.close(() => process.exit(0))
  })
}
