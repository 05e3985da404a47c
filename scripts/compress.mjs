// Compresses the built app once, so that the server need not do it for every visit.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { root } from './setup.mjs'

/** Files that are compressed already gain nothing. */
const TEXT = /\.(js|css|html|svg|json|txt)$/

const brotli = promisify(brotliCompress)
const zip = promisify(gzip)

const folder = join(root, 'web/dist/assets')
const compress = async (name) => {
  const path = join(folder, name)
  const content = readFileSync(path)
  const params = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY }
  writeFileSync(`${path}.br`, await brotli(content, { params }))
  writeFileSync(`${path}.gz`, await zip(content, { level: constants.Z_BEST_COMPRESSION }))
}
const files = readdirSync(folder).filter((name) => TEXT.test(name) && statSync(join(folder, name)).isFile())
await Promise.all(files.map(compress))
