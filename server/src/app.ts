import compression from 'compression'
import express, { type ErrorRequestHandler, type Express, type Request } from 'express'
import helmet from 'helmet'
import Joi from 'joi'
import { loadArchive, searchTunes } from './archive.ts'
import { pdfBrowser, pdfOf } from './pdf.ts'

const ERRORS: Readonly<Record<number, string>> = {
  404: 'There is nothing at this address.',
  413: 'These pages are too large for a PDF; leave something out or use the print dialog.',
}

const archiveQuery = Joi.object<{ q: string }>({ q: Joi.string().trim().allow('').max(200).default('') })

/** Pages with their fonts and drawings. */
const LARGEST_PAGE = '8mb'

/** True unless a browser says that another site's page is asking. */
const fromThisPage = ({ headers }: Pick<Request, 'headers'>): boolean =>
  [undefined, 'same-origin'].includes(headers['sec-fetch-site'] as string | undefined)

/** The server: the built app, a health check, pages as PDF and the tune archive stand-in. Nothing personal ever reaches it. */
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
  app.get('/api/pdf', (_request, response) => {
    response.set('Cache-Control', 'no-store').json({ available: pdfBrowser() !== undefined })
  })
  app.post(
    '/api/pdf',
    express.text({ type: 'text/html', limit: LARGEST_PAGE }),
    async (request, response) => {
      const browser = pdfBrowser()
      if (!fromThisPage(request)) response.status(403).json({ error: 'Only this app may ask for a PDF.' })
      else if (!browser)
        response
          .status(501)
          .json({ error: 'No Chromium is installed here; use the print dialog of the browser.' })
      else if (typeof request.body !== 'string' || request.body === '')
        response.status(400).json({ error: 'There are no pages to print: send them as text/html.' })
      else response.type('application/pdf').send(await pdfOf(request.body, browser))
    },
  )
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
    response.status(status).json({ error: ERRORS[status] ?? 'The server could not answer.' })
  }) satisfies ErrorRequestHandler)
  return app
}
