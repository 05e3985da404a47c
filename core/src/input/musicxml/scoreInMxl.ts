import { unzipSync } from 'fflate'
import { message } from '../../messages/message.ts'
import { child, children, XmlError, xmlTree } from './xmlTree.ts'

/** The largest score that is read, unpacked. */
const LARGEST_BYTES = 40_000_000

/** Where a packed score says which of its files is the score (MusicXML 4.0, compressed files). */
const CONTAINER = 'META-INF/container.xml'

/**
 * The score in a packed file (`.mxl`), as its bytes.
 * @throws XmlError where it is no such file, or would unpack to more than is read
 */
export function scoreInMxl(bytes: Uint8Array): Uint8Array {
  const files = unpacked(bytes)
  const container = files[CONTAINER]
  const named = container && rootOf(new TextDecoder().decode(container))
  const name =
    named ?? Object.keys(files).find((f) => /\.(?:musicxml|xml)$/i.test(f) && !f.startsWith('META-INF/'))
  const score = name === undefined ? undefined : files[name]
  if (!score) throw new XmlError(message('reading.emptyMxl'), 1)
  return score
}

function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  let total = 0
  try {
    return unzipSync(bytes, {
      // What a file says of its size is what is unpacked at most.
      filter: ({ name, originalSize }) => {
        if (!/\.(?:musicxml|xml)$/i.test(name)) return false
        total += originalSize
        if (total > LARGEST_BYTES)
          throw new XmlError(message('reading.mxlTooLarge', { most: LARGEST_BYTES / 1e6 }), 1)
        return true
      },
    })
  } catch (error) {
    if (error instanceof XmlError) throw error
    throw new XmlError(message('reading.badMxl'), 1)
  }
}

const rootOf = (text: string): string | undefined =>
  children(child(xmlTree(text), 'rootfiles'), 'rootfile')[0]?.attributes['full-path']
