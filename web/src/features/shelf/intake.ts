import { arrangementOf } from '@velvet-porch/core/arrange'
import type { Score, TuneDoc } from '@velvet-porch/core/document'
import { isJson, LARGEST_SOURCE_BYTES } from '@velvet-porch/core/input'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import type { MidiChoices } from '@velvet-porch/core/input/midi'
import type { SongChoices } from '@velvet-porch/core/input/song'
import i18next from 'i18next'
import { takeTuneFile } from '../../state/backup.ts'
import { db } from '../../state/db.ts'
import { playerOf } from '../../state/players.ts'
import { currentPrefs } from '../../state/prefs.ts'
import { addScore, addTunes, arrangementId } from '../../state/shelf.ts'
import { problemText, say } from '../../texts/say.ts'
import { arrangeInWorker, understandInWorker } from '../../workers/benchWorker.ts'
import { errorWords } from '../../workers/errorWords.ts'

/** What became of a text or file: tunes that are now on the shelf, and what could not be read. */
export interface Intake {
  readonly tunes: readonly TuneDoc[]
  readonly complaints: readonly string[]
  /** True where a tune came with its tab. */
  readonly withTab: boolean
}

/** A text that is being looked at before anything of it is taken. */
export interface Source {
  /** The file's name; absent for what is pasted. */
  readonly file?: string
  readonly text: string
}

/** What a source is, before anything is taken: its tunes, or why nothing of it can be read. */
export interface Understood {
  readonly source: Source
  /** A tune that was saved here: taken as it is. */
  readonly saved?: true
  readonly tunes: readonly TuneUnderstood[]
  readonly complaints: readonly string[]
}

/** What is chosen where a source leaves it open: of a song, and of a score or MIDI file. */
export interface Choices {
  readonly song?: SongChoices
  readonly score?: MidiChoices
}

/** What could not be taken, and why. */
const nothing = (...complaints: string[]): Intake => ({ tunes: [], complaints, withTab: false })

/** Reads a source without taking it. Never throws: what failed is a complaint. */
export async function understood(
  source: Source,
  newTitle: string,
  choices: Choices = {},
): Promise<Understood> {
  const { text } = source
  const refused = (...complaints: string[]): Understood => ({ source, tunes: [], complaints })
  if (isJson(text)) {
    const fault = await savedFault(text)
    return fault === undefined ? { source, saved: true, tunes: [], complaints: [] } : refused(fault)
  }
  const { kindOf, LARGEST_SCORE_BYTES } = await import('@velvet-porch/core/input/any')
  const kind = kindOf(text)
  const isScore = kind === 'musicxml' || kind === 'midi'
  if (text.length > (isScore ? LARGEST_SCORE_BYTES : LARGEST_SOURCE_BYTES))
    return refused(i18next.t('shelf.tooLong', { mb: (text.length / 1_000_000).toFixed(1) }))
  try {
    // A score without a title is called as its file is.
    const title = (isScore && source.file?.replace(/\.\w+$/, '')) || newTitle
    const { player } = currentPrefs()
    const hand = playerOf(player === undefined ? undefined : await db.players.get(player))
    const { tunes } = await understandInWorker(text, { player: hand, title, ...choices })
    return { source, tunes, complaints: tunes.flatMap((t) => (t.tune ? [] : reasonsOf(t))) }
  } catch (error) {
    return refused(errorWords(i18next.t, error))
  }
}

/** Why a tune could not be read. */
const reasonsOf = ({ problems }: TuneUnderstood): string[] =>
  problems.filter((p) => p.severity === 'error').map((p) => problemText(i18next.t, p))

/** Puts tunes that were understood on the shelf, each with its tab where it has one. Never throws. */
export async function take(tunes: readonly TuneUnderstood[]): Promise<Intake> {
  try {
    const scores = await Promise.all(tunes.map(scoreOf))
    const taken = scores.filter((s) => s !== undefined)
    const bare = taken.filter((s) => !s.arrangement).map((s) => s.tune)
    if (bare.length > 0) await addTunes(bare)
    for (const score of taken) if (score.arrangement) await addScore(score)
    const withTab = tunes.some((t) => t.arrangement)
    return { tunes: taken.map((s) => s.tune), complaints: [], withTab }
  } catch (error) {
    return nothing(errorWords(i18next.t, error))
  }
}

/** A tab has its arrangement already; a song is strummed as it says. */
async function scoreOf({ tune, arrangement, song }: TuneUnderstood): Promise<Score | undefined> {
  if (!tune) return undefined
  if (arrangement) return { tune, arrangement }
  if (!song) return { tune }
  const { tunedOrder } = await import('./songOrder.ts')
  const order = tunedOrder(tune, song)
  const reply = await arrangeInWorker(order, () => undefined).reply
  if (reply.kind !== 'done') return { tune }
  const { layer, transposed } = reply
  const made = arrangementOf(arrangementId(tune.id), tune.title, tune, order.setup, order.regions, {
    layer,
    transposed,
  })
  return { tune, arrangement: made }
}

/** Reads a text and takes all of it at once: what the app makes itself, and the archive. */
export async function takeText(text: string, title = ''): Promise<Intake> {
  const { tunes, complaints } = await understood({ text }, title)
  const intake = await take(tunes)
  return { ...intake, complaints: [...complaints, ...intake.complaints] }
}

/** Why a JSON text is no tune that was saved here; undefined where it is one. */
async function savedFault(text: string): Promise<string | undefined> {
  const { BACKUP_FORMAT, readTuneFile, TUNE_FILE_FORMAT } = await import('@velvet-porch/core/schema')
  try {
    const value: unknown = JSON.parse(text)
    const format = (value as { format?: unknown } | null)?.format
    if (format === BACKUP_FORMAT) return i18next.t('shelf.everythingFile')
    if (format !== TUNE_FILE_FORMAT) return i18next.t('shelf.otherJson')
    readTuneFile(value)
    return undefined
  } catch (error) {
    return error instanceof SyntaxError ? i18next.t('shelf.otherJson') : errorWords(i18next.t, error)
  }
}

/** Takes a tune with its arrangements as it was saved here. Never throws. */
export async function takeSaved(text: string): Promise<Intake> {
  try {
    const { readTuneFile } = await import('@velvet-porch/core/schema')
    const file = readTuneFile(JSON.parse(text))
    const id = await takeTuneFile(file)
    return { tunes: [{ ...file.tune, id }], complaints: [], withTab: file.arrangements.length > 0 }
  } catch (error) {
    return nothing(errorWords(i18next.t, error))
  }
}

/** A tune with a long history of versions. */
const LARGEST_TUNE_FILE = 50_000_000

/** True for a zip with everything, by the name of what lies in it: names stand plainly in its directory. */
const holdsShelf = (bytes: Uint8Array): boolean =>
  new TextDecoder('latin1').decode(bytes.subarray(0, 4000)).includes('everything.json')

/** A text of a file, or why it is none. */
export type FileText = { readonly source: Source; readonly note?: string } | { readonly complaint: string }

/** The texts of files, whatever they are called. */
export const textsOf = async (files: readonly File[]): Promise<FileText[]> => {
  const { formatOf } = await import('@velvet-porch/core/formats')
  // What lies in a folder beside the tunes is not what was meant.
  const meant = files.filter((f) => !isInFolder(f) || formatOf(f.name)?.reads !== undefined)
  return Promise.all(
    meant.map(async (file): Promise<FileText> => {
      if (isJson(await file.slice(0, 100).text()) && file.size <= LARGEST_TUNE_FILE)
        return { source: { file: file.name, text: await file.text() } }
      const { fileText, isZip, LARGEST_SCORE_BYTES } = await import('@velvet-porch/core/input/any')
      const bytes = new Uint8Array(await file.slice(0, LARGEST_SCORE_BYTES + 1).arrayBuffer())
      if (isZip(bytes) && holdsShelf(bytes))
        return { complaint: `${file.name}: ${i18next.t('shelf.everythingFile')}` }
      const source = fileText(bytes)
      if (!source.ok) return { complaint: `${file.name}: ${say(i18next.t, source.says)}` }
      return {
        source: { file: file.name, text: source.text },
        ...(source.note ? { note: `${file.name}: ${say(i18next.t, source.note)}` } : {}),
      }
    }),
  )
}

/** True for a file that came with a folder: it has a path. */
const isInFolder = (file: File & { readonly path?: string }): boolean =>
  (file.path ?? '').split('/').filter((p) => p !== '' && p !== '.').length > 1
