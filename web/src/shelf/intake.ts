import { decodeSource, problemText, type TuneDoc } from '@velvet-porch/core'
import { addTunes } from '../store/shelf.ts'
import { readInWorker } from '../worker/benchWorker.ts'

/** What became of a text or file: tunes that are now on the shelf, and what could not be read. */
export interface Intake {
  readonly tunes: readonly TuneDoc[]
  readonly complaints: readonly string[]
}

/** Reads ABC and puts every tune that could be read on the shelf. Earlier work is never touched. */
export async function takeText(text: string): Promise<Intake> {
  const readings = await readInWorker(text)
  const tunes = readings.flatMap((r) => (r.tune ? [r.tune] : []))
  const complaints = readings.flatMap((r) =>
    r.tune ? [] : r.problems.filter((p) => p.severity === 'error').map(problemText),
  )
  if (tunes.length > 0) await addTunes(tunes)
  return { tunes, complaints }
}

export async function takeFiles(files: readonly File[]): Promise<Intake> {
  const all = await Promise.all(
    files.map(async (file) => {
      const source = decodeSource(new Uint8Array(await file.slice(0, 10_000_000).arrayBuffer()))
      if (!source.ok) return { tunes: [], complaints: [`${file.name}: ${source.reason}`] }
      const intake = await takeText(source.text)
      return {
        tunes: intake.tunes,
        complaints: [
          ...(source.note ? [`${file.name}: ${source.note}`] : []),
          ...intake.complaints.map((c) => `${file.name}: ${c}`),
        ],
      }
    }),
  )
  return { tunes: all.flatMap((a) => a.tunes), complaints: all.flatMap((a) => a.complaints) }
}
