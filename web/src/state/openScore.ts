import { tidyRegions, type ArrangementDoc, type Score, type TuneDoc } from '@velvet-porch/core/document'
import { tidyTab } from '@velvet-porch/core/edit'
import { liveQuery, type Subscription } from 'dexie'
import { useSyncExternalStore } from 'react'
import { changeScore, putSteps, stepOf, storedScore, type ScoreEdit, type ScoreStep } from './documents.ts'
import { endTrouble, reportTrouble } from './storageTrouble.ts'
import { untilWritten } from './unwritten.ts'
import { mayWrite } from './writeLock.ts'

/** A tune and its tab as the page shows them; either is undefined where storage has none. */
export interface OpenScore {
  readonly tune: TuneDoc | undefined
  readonly arrangement: ArrangementDoc | undefined
}

/** The longest that an edit waits for the frame that shows it before it is written. */
const LATEST_MS = 200

/** How long a score stays open after the last view of it closed: the next stage usually opens it again. */
const LINGER_MS = 2000

/**
 * One tune that is open on the page. What is written by hand is on the page at once and in storage right after it is
 * drawn; everything else comes from storage, followed live.
 */
class OpenedScore {
  #score: OpenScore | undefined
  #listeners = new Set<() => void>()
  #following: Subscription | undefined
  #unwritten: readonly ScoreStep[] = []
  /** Steps on the page that storage does not hold yet, those on their way included. */
  #ahead = 0
  #write: (() => void) | undefined
  #stored = Promise.resolve()
  /** True while the page shows a state that storage never had: what it is ahead by must be applied anew. */
  #astray = false
  #linger: ReturnType<typeof setTimeout> | undefined

  constructor(readonly tuneId: string) {}

  readonly score = (): OpenScore | undefined => this.#score

  readonly subscribe = (listener: () => void): (() => void) => {
    clearTimeout(this.#linger)
    this.#listeners.add(listener)
    this.#following ??= liveQuery(() => read(this.tuneId)).subscribe(
      (stored) => this.#take(stored),
      (error: unknown) => {
        reportTrouble(error)
        this.#show(this.#score ?? { tune: undefined, arrangement: undefined })
      },
    )
    return () => {
      this.#listeners.delete(listener)
      if (this.#listeners.size === 0) this.#linger = setTimeout(() => this.#close(), LINGER_MS)
    }
  }

  /**
   * Applies an edit to the score on the page; storage follows.
   * @returns false where nothing changes; undefined where the score is not open yet
   */
  edit(label: string, edit: ScoreEdit): boolean | undefined {
    const { tune, arrangement } = this.#score ?? {}
    if (!tune) return undefined
    const score: Score = { tune, ...(arrangement ? { arrangement } : {}) }
    const step = stepOf(score, label, edit)
    if (!step) return false
    this.#unwritten = [...this.#unwritten, step]
    this.#ahead++
    this.#show({
      tune: step.tune?.doc ?? tune,
      arrangement: step.arrangement?.doc ?? step.first ?? arrangement,
    })
    if (!this.#write) this.#writeSoon()
    return true
  }

  /** Writes what is on the page without waiting for the next frame. */
  readonly flush = (): void => this.#write?.()

  /** Tries once more to write what storage did not take. */
  readonly retry = (): void => {
    if (this.#unwritten.length > 0 && !this.#write) this.#writeSoon()
  }

  /** True while the page holds changes that storage does not. */
  readonly isAhead = (): boolean => this.#ahead > 0

  #writeSoon(): void {
    untilWritten(
      new Promise((resolve, reject) => {
        const write = () => {
          if (this.#write !== write) return
          this.#write = undefined
          clearTimeout(late)
          const stored = this.#stored.then(() => this.#store())
          this.#stored = stored.catch(() => undefined)
          stored.then(resolve, reject)
        }
        this.#write = write
        // After the frame that shows it; a page in the background draws none.
        requestAnimationFrame(() => setTimeout(write))
        const late = setTimeout(write, LATEST_MS)
      }),
    )
  }

  async #store(): Promise<void> {
    const steps = this.#unwritten
    // The write before this one may have taken what came meanwhile.
    if (steps.length === 0) return
    this.#unwritten = []
    let written = 0
    let asShown: boolean
    try {
      asShown = !this.#astray && (await putSteps(this.tuneId, steps))
      if (asShown) written = steps.length
      for (const { label, edit } of steps.slice(written)) {
        await changeScore(this.tuneId, label, edit)
        written++
      }
    } catch (error) {
      // Storage is full or gone: what was changed stays on the page, and is tried again with the next change.
      this.#unwritten = [...steps.slice(written), ...this.#unwritten]
      this.#ahead -= written
      throw error
    }
    this.#ahead -= steps.length
    this.#astray = !asShown
    if (this.#ahead === 0) endTrouble()
    // Another window wrote in between: the page shows what storage holds.
    if (this.#astray && this.#ahead === 0) {
      const stored = await read(this.tuneId)
      if (this.#ahead === 0) {
        this.#astray = false
        this.#show(stored)
      }
    }
  }

  /** Takes what storage holds, unless the page is ahead of it; what is the same stays the same object. */
  #take(stored: OpenScore): void {
    if (this.#ahead > 0) return
    const { tune, arrangement } = this.#score ?? {}
    this.#show({ tune: same(tune, stored.tune), arrangement: same(arrangement, stored.arrangement) })
  }

  #show(score: OpenScore): void {
    const before = this.#score
    if (before && before.tune === score.tune && before.arrangement === score.arrangement) return
    this.#score = score
    for (const listener of this.#listeners) listener()
  }

  #close(): void {
    this.flush()
    this.#following?.unsubscribe()
    open.delete(this.tuneId)
  }
}

/** Revisions rise with every change, so equal ones mean the same document. */
const same = <T extends { readonly rev: number }>(shown: T | undefined, stored: T | undefined) =>
  shown && stored && shown.rev === stored.rev ? shown : stored

async function read(tuneId: string): Promise<OpenScore> {
  const { tune, arrangement } = (await storedScore(tuneId)) ?? {}
  return { tune, arrangement: tune && arrangement && followed(tune, arrangement) }
}

/** A tab without what stands in measures that the tune does not have: nothing of it could be played. */
function followed(tune: TuneDoc, arrangement: ArrangementDoc): ArrangementDoc {
  const measures = new Set(tune.measures?.map((m) => m.id))
  const { notes = [], grips = [] } = arrangement.base ?? {}
  const { regions = [], variants = [] } = arrangement
  const here = (x: { readonly pos?: { readonly measure: string } }) =>
    x.pos !== undefined && measures.has(x.pos.measure)
  const inTune = (ids: readonly string[]) => ids.every((id) => measures.has(id))
  const whole =
    notes.every(here) &&
    grips.every(here) &&
    regions.every((r) => inTune([r.from, r.to])) &&
    variants.every((v) => inTune(v.measures))
  if (whole) return arrangement
  try {
    const tidy = tidyTab(tune, arrangement)
    return {
      ...tidy,
      regions: tidyRegions(tune, regions),
      variants: variants.filter((v) => inTune(v.measures)),
    }
  } catch {
    // Not a tune or not a tab: the check says so.
    return arrangement
  }
}

const open = new Map<string, OpenedScore>()

/** The open score of a tune, opened by the first who listens. */
export function openScoreOf(tuneId: string): OpenedScore {
  const opened = open.get(tuneId) ?? new OpenedScore(tuneId)
  open.set(tuneId, opened)
  return opened
}

/** The score of a tune as it stands on the page; undefined while it is being opened, or where there is no tune. */
export function useOpenScore(tuneId: string | undefined): OpenScore | undefined {
  const opened = tuneId === undefined ? CLOSED : openScoreOf(tuneId)
  return useSyncExternalStore(opened.subscribe, opened.score)
}

const CLOSED = { subscribe: () => () => undefined, score: () => undefined }

/**
 * Writes on an open score by hand: on the page at once, in storage a moment later.
 * @returns false where nothing changes, or another window writes the tune
 */
export async function editScore(tuneId: string, label: string, edit: ScoreEdit): Promise<boolean> {
  if (!mayWrite(tuneId)) return false
  return open.get(tuneId)?.edit(label, edit) ?? changeScore(tuneId, label, edit)
}

/** Tries once more to write all that storage did not take. */
export const retryWrites = (): void => open.forEach((opened) => opened.retry())

/** Scores on the page with changes that storage does not hold. */
export const unstoredScores = (): OpenScore[] =>
  [...open.values()].filter((o) => o.isAhead()).flatMap((o) => o.score() ?? [])

// A page that is left or hidden may never draw another frame.
const flushAll = () => open.forEach((opened) => opened.flush())
if (typeof window !== 'undefined') {
  window.addEventListener('pagehide', flushAll)
  document.addEventListener('visibilitychange', flushAll)
  // What storage did not take is gone with the page: the browser asks first.
  window.addEventListener('beforeunload', (event) => {
    if (unstoredScores().length > 0) event.preventDefault()
  })
}
