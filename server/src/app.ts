import compression from 'compression'
import compressed from 'express-static-gzip'
import express, { type ErrorRequestHandler, type Express, type Request } from 'express'
import helmet from 'helmet'
import Joi from 'joi'
import { loadArchive, searchTunes } from './archive.ts'
import { allowsHost } from './hosts.ts'
import { PdfError, type Printer } from './pdf.ts'
import { PdfQueue, QueueFullError } from './pdfQueue.ts'

const ERRORS: Readonly<Record<number, string>> = {
  400: 'The request cannot be read.',
  404: 'There is nothing at this address.',
  415: 'Send the pages as text/html in UTF-8.',
  413: 'These pages are too large for a PDF; leave something out or use the print dialog.',
}

const archiveQuery = Joi.object<{ q: string }>({ q: Joi.string().trim().allow('').max(200).default('') })

/** Pages with their fonts and drawings. */
const LARGEST_PAGE = '8mb'

/**
 * True unless a browser says that another site's page is asking. Over plain http under another name a browser does not say
 * where a page is from, but still which origin it has.
 */
function fromThisPage({ headers }: Pick<Request, 'headers'>): boolean {
  const site = headers['sec-fetch-site']
  if (site !== undefined) return site === 'same-origin'
  if (headers.origin === undefined) return true
  return URL.canParse(headers.origin) && new URL(headers.origin).host === headers.host
}

/** Where the server listens, and under which further names it may be asked. */
export interface AppOptions {
  readonly host?: string
  readonly allowedHosts?: readonly string[]
  /** How pages become a PDF; another one in tests. */
  readonly printer?: Pick<Printer, 'print'>
}

/** The server: the built app, a health check, pages as PDF and the tune archive stand-in. Nothing personal ever reaches it. */
export function createApp(
  built: string,
  { host = '127.0.0.1', allowedHosts = [], printer }: AppOptions = {},
): Express {
  const app = express()
  const allows = allowsHost(host, allowedHosts)
  const queue = new PdfQueue()
  const tunes = loadArchive()
  app.disable('x-powered-by')
  app.use((request, response, next) => {
    if (allows(request.headers.host)) next()
    else
      response
        .status(421)
        .json({ error: 'This server does not answer under that name. Allow it with ALLOWED_HOSTS=name.' })
  })
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
          // A recording of the teacher's own is played from memory.
          mediaSrc: ["'self'", 'blob:'],
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
    response.set('Cache-Control', 'no-store').json({ available: printer !== undefined })
  })
  app.post(
    '/api/pdf',
    // Who asks is known before anything of it is read.
    (request, response, next) => {
      if (fromThisPage(request)) next()
      else response.status(403).json({ error: 'Only this app may ask for a PDF.' })
    },
    express.text({ type: 'text/html', limit: LARGEST_PAGE }),
    async (request, response) => {
      if (!printer)
        return response
          .status(501)
          .json({ error: 'No Chromium is installed here; use the print dialog of the browser.' })
      const { body } = request as { body: unknown }
      if (typeof body !== 'string' || body === '')
        return response.status(400).json({ error: 'There are no pages to print: send them as text/html.' })
      const left = new AbortController()
      response.on('close', () => left.abort())
      try {
        const pdf = await queue.run(() => printer.print(body, left.signal), left.signal)
        return response.type('application/pdf').send(pdf)
      } catch (error) {
        if (left.signal.aborted) return undefined
        if (error instanceof QueueFullError)
          return response.status(503).set('Retry-After', '30').json({
            error: 'Too many PDFs are wanted at once; try again in a minute, or use the print dialog.',
          })
        if (error instanceof PdfError)
          return response.status(500).json({
            error: `The PDF could not be made: ${error.message}. Use the print dialog of the browser.`,
          })
        throw error
      }
    },
  )
  app.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' })
  })
  app.use((request, response, next) => {
    try {
      decodeURIComponent(request.path)
      next()
    } catch {
      response.status(400).json({ error: 'This address cannot be read.' })
    }
  })
  // The build compressed them once for all.
  app.use(
    '/assets',
    compressed(`${built}/assets`, {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  )
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
