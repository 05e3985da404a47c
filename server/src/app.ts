import compression from 'compression'
import express, { type ErrorRequestHandler, type Express } from 'express'
import helmet from 'helmet'
import Joi from 'joi'
import { loadArchive, searchTunes } from './archive.ts'

const archiveQuery = Joi.object<{ q: string }>({ q: Joi.string().trim().allow('').max(200).default('') })

/** The server: the built app, a health check and the tune archive stand-in. Nothing personal ever reaches it. */
export function createApp(built: string): Express {
  const app = express()
  const tunes = loadArchive()
  app.disable('x-powered-by')
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          // Mantine and the text editor put computed styles into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      crossOriginEmbedderPolicy: false,
    }),
  )
  app.use(compression())
  app.get('/api/health', (_request, response) => {
    response.set('Cache-Control', 'no-store').json({ ok: true, tunes: tunes.length })
  })
  app.get('/api/archive', (request, response) => {
    const { value, error } = archiveQuery.validate(request.query)
    if (error) response.status(400).json({ error: `The search cannot be read: ${error.message}.` })
    else response.set('Cache-Control', 'no-cache').json({ tunes: searchTunes(tunes, value.q) })
  })
  app.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' })
  })
  app.use('/assets', express.static(`${built}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(built, { maxAge: 0, index: false }))
  app.get(/.*/, (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: built })
  })
  app.use(((error: Error & { status?: number }, _request, response, _next) => {
    const status = error.status ?? 500
    response
      .status(status)
      .json({ error: status === 404 ? 'There is nothing at this address.' : 'The server could not answer.' })
  }) satisfies ErrorRequestHandler)
  return app
}
