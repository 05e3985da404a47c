import type { Command } from 'commander'
import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { basename, extname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import Tinypool from 'tinypool'
import { tuneTexts } from '@velvet-porch/core/input/abc'
import { kindOf } from '@velvet-porch/core/input/any'
import { formatOf } from '@velvet-porch/core/formats'
import { targetOf } from '../convert/targets.ts'
import type { ArrangeValues } from '../options.ts'
import { readText } from '../readInput.ts'
import { UsageError, wholeNumber } from '../usage.ts'
import { bookOf } from './bookOf.ts'
import type { Job, JobDone } from './job.ts'

/** Jobs that wait at each worker: enough to keep it busy, few enough to keep memory flat. */
const WAITING = 2

/** Threads that may be asked for. */
const MOST_CORES = 256

/** What is asked of a whole folder. */
export interface FolderValues extends ArrangeValues {
  readonly out?: string
  readonly to: string
  readonly cores?: string
}

/** True for a folder. */
export const isFolder = (path: string): boolean => existsSync(path) && statSync(path).isDirectory()

/** Adds the options of commands that take a folder as well. */
export const withFolderOptions = (to: Command, formats: string): Command =>
  to
    .option(
      '--out <folder>',
      'where the tunes of a folder are written; a name ending in .pdf makes one book of them',
    )
    .option('--to <formats>', 'what the tunes of a folder become, with commas between', formats)
    .option('--cores <number>', 'how many tunes are worked on at once; left out: as many as there are cores')

/** Converts every tune of a folder on all cores. One that fails is named and does not stop the rest; the exit code says so. */
export async function convertAll(from: string, values: FolderValues): Promise<void> {
  const { out: to } = values
  if (to === undefined) throw new UsageError('Say where the tunes are to be written: --out FOLDER.')
  if (/\.pdf$/i.test(to)) return bookOf(filesIn(from), to, values)
  const targets = values.to
    .split(',')
    .map((e) => e.trim())
    .filter((e) => e !== '')
  for (const t of targets) targetOf(t)
  const files = filesIn(from)
  if (files.length === 0) throw new UsageError(`${from}: there is no tune in this folder.`)
  mkdirSync(to, { recursive: true })
  const cores =
    values.cores === undefined ? availableParallelism() : wholeNumber(values.cores, 1, MOST_CORES, 'cores')
  const pool = new Tinypool({
    filename: fileURLToPath(new URL('./worker.mjs', import.meta.url)),
    minThreads: cores,
    maxThreads: cores,
    maxQueue: 'auto',
    teardown: 'closeBrowser',
  })
  const progress = new Progress()
  const names = new Set<string>()
  const running = new Set<Promise<void>>()
  try {
    for (const job of jobsOf(files, to, targets, values, names)) {
      const one: Promise<void> = (pool.run(job) as Promise<JobDone>)
        .then((done) => progress.add(done))
        .catch((error: unknown) => progress.fail(job.label, error))
        .finally(() => running.delete(one))
      running.add(one)
      if (running.size >= cores * WAITING) await Promise.race(running)
    }
    await Promise.all(running)
  } finally {
    await pool.destroy()
  }
  progress.end(to)
  if (progress.failed > 0) process.exitCode = 1
}

/** Files that may hold tunes, in all folders below, in order. */
function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => formatOf(name)?.reads !== undefined)
    .map((name) => join(folder, name))
    .filter((path) => statSync(path).isFile())
    .sort()
}

/** The work, a tune at a time: books are taken apart. */
function* jobsOf(
  files: readonly string[],
  out: string,
  targets: readonly string[],
  values: ArrangeValues,
  names: Set<string>,
): Generator<Job> {
  for (const file of files) {
    const base = basename(file, extname(file))
    let texts: readonly string[]
    try {
      const { text } = readText(file)
      texts = kindOf(text) === 'abc' ? tuneTexts(text) : [text]
    } catch (error) {
      yield { label: file, failed: (error as Error).message, base, out, targets, values }
      continue
    }
    for (const [i, text] of texts.entries()) {
      const label = texts.length > 1 ? `${file}, tune ${i + 1}` : file
      let name = texts.length > 1 ? `${base}-${String(i + 1).padStart(3, '0')}` : base
      for (let n = 2; names.has(name); n++) name = `${base}-${n}`
      names.add(name)
      yield { label, text, base: name, out, targets, values }
    }
  }
}

/** Says how far the work is, and what failed. */
class Progress {
  failed = 0
  private tunes = 0
  private written = 0
  private readonly isTerminal = process.stderr.isTTY

  add({ label, tunes, written, failures }: JobDone): void {
    this.tunes += tunes
    this.written += written
    for (const reason of failures) this.say(label, reason)
    if (this.isTerminal) process.stderr.write(`\r${this.tunes} tunes, ${this.failed} failed `)
    else if (this.tunes % 100 < tunes) process.stderr.write(`${this.tunes} tunes\n`)
  }

  fail(label: string, error: unknown): void {
    this.tunes++
    this.say(label, error instanceof Error ? error.message : String(error))
  }

  end(to: string): void {
    process.stderr.write(
      `${this.isTerminal ? '\n' : ''}${this.tunes} tunes read, ${this.written} files written to ${to}, ${this.failed} failed.\n`,
    )
  }

  private say(label: string, reason: string): void {
    this.failed++
    process.stderr.write(`${this.isTerminal ? '\n' : ''}${label}: ${reason}\n`)
  }
}
