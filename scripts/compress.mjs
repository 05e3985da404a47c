// Compresses the built app once, so that the server need not do it for every visit.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import { root } from './setup.mjs'

/** Files that are compressed already gain nothing. */
const TEXT = /\.(js|css|html|svg|json|txt)$/

const folder = join(root, 'web/dist/assets')
for (const name of readdirSync(folder)) {
  const path = join(folder, name)
  if (!TEXT.test(name) || !statSync(path).isFile()) continue
  const content = readFileSync(path)
  writeFileSync(
    `${path}.br`,
    brotliCompressSync(content, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }),
  )
  writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }))
}
