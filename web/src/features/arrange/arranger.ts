import { setupOf, withShift, type Player, type Setup } from '@velvet-porch/core/instrument'
import {
  isFresh,
  madeFresh,
  type ArrangementDoc,
  type Id,
  type Score,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { arrangementOf } from '@velvet-porch/core/arrange'
import { locksAround, type SectionedTune, withSelection } from '@velvet-porch/core/edit'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { OpenScore } from '../../state/openScore.ts'
import { arrangementId } from '../../state/shelf.ts'
import type { ArrangeOrder, ArrangeReply } from '../../workers/benchApi.ts'
import type { ArrangeRun } from '../../workers/arrangeRun.ts'
import { settingsOf, type Settings } from './settings.ts'

/** What a choice makes of the settings that stand when its turn comes. */
export type SettingsChange = (now: Settings) => Partial<Settings>

/** A choice that could not be carried out. */
export interface Failure {
  /** Why: the tune cannot be arranged so, or the worker was lost over it. */
  readonly why: Exclude<ArrangeReply, { kind: 'done' | 'cancelled' }>
  /** Locks that contradict. */
  readonly locks: readonly Id[]
  readonly label: string
  readonly change: SettingsChange
}

/** A change of the tune itself, with the sections that it has then; undefined where it cannot be. */
export type TuneChange = (now: SectionedTune) => SectionedTune | undefined

/** Something to be arranged: the whole tune after a choice or a change of the tune, or some measures alone. */
type Job = { readonly label: string } & (
  | { readonly change: SettingsChange }
  | { readonly reshape: TuneChange }
  | { readonly from: number; readonly to: number }
)

export interface ArrangerState {
  /** What is being arranged, and what waits behind it. */
  readonly waiting: readonly Job[]
  /** Share of the work on the first of them that is done; absent while there is none. */
  readonly progress?: number
  readonly failed?: Failure
}

/** What an arranger works with. */
export interface ArrangerTools {
  /** The score as it stands on the page. */
  readonly score: () => OpenScore | undefined
  readonly player: () => Player
  readonly solve: (order: ArrangeOrder, onProgress: (share: number) => void) => ArrangeRun
  /** Applies an edit to the score as one step of its history. */
  readonly edit: (label: string, edit: (score: Score) => Score | undefined) => Promise<boolean>
}

const IDLE: ArrangerState = { waiting: [] }

/**
 * Arranges one tune. Choices are commands: each is carried out on the settings that stand when its turn comes, and enters
 * the history as a step of its own, so that of several quick ones none undoes another.
 */
export class Arranger {
  readonly store: StoreApi<ArrangerState> = createStore<ArrangerState>(() => IDLE)
  #run: ArrangeRun | undefined
  #working: Promise<void> | undefined
  readonly #tools: ArrangerTools

  constructor(tools: ArrangerTools) {
    this.#tools = tools
  }

  /** Changes settings and arranges the tune anew. Settles when it is on the page, failed, or was stopped. */
  choose(label: string, change: SettingsChange): Promise<void> {
    return this.#add({ label, change })
  }

  /** Changes the tune and its sections, and arranges it anew: one step of the history. */
  reshape(label: string, reshape: TuneChange): Promise<void> {
    return this.#add({ label, reshape })
  }

  /** Arranges some measures alone; the others stay note for note. */
  rearrange(label: string, from: number, to: number): Promise<void> {
    return this.#add({ label, from, to })
  }

  /** Declares the tab as it stands an answer to the tune. */
  accept(label: string): Promise<boolean> {
    return this.#tools.edit(label, ({ tune, arrangement }) =>
      arrangement ? { tune, arrangement: madeFresh(tune, arrangement) } : undefined,
    )
  }

  /** Stops what is being arranged, and what waits behind it. */
  cancel(): void {
    this.#run?.cancel()
    this.#run = undefined
    this.store.setState({ ...this.#kept(), waiting: [] }, true)
  }

  /** Takes the word of a failure back. */
  forget(): void {
    const { failed: _, ...rest } = this.store.getState()
    this.store.setState(rest, true)
  }

  isAtWork(): boolean {
    return this.store.getState().waiting.length > 0
  }

  #add(job: Job): Promise<void> {
    const { waiting } = this.store.getState()
    this.store.setState({ waiting: [...waiting, job], ...(waiting.length === 0 ? { progress: 0 } : {}) })
    this.#working ??= this.#work().finally(() => (this.#working = undefined))
    return this.#working
  }

  /** Carries out what waits. One that throws is off the list like any other, and is thrown on when all are done. */
  async #work(): Promise<void> {
    const thrown: unknown[] = []
    for (let [job] = this.store.getState().waiting; job; [job] = this.store.getState().waiting) {
      this.forget()
      try {
        await this.#carryOut(job)
      } catch (error) {
        thrown.push(error)
      }
      this.#done(job)
    }
    if (thrown.length > 0) throw thrown[0]
  }

  /** Takes a job off the list; nothing where it was stopped meanwhile. */
  #done(job: Job): void {
    const { waiting } = this.store.getState()
    if (waiting[0] !== job) return
    const rest = waiting.slice(1)
    this.store.setState({ ...this.#kept(), waiting: rest, ...(rest.length > 0 ? { progress: 0 } : {}) }, true)
  }

  /** What of the state outlives a job. */
  #kept(): Pick<ArrangerState, 'failed'> {
    const { failed } = this.store.getState()
    return failed ? { failed } : {}
  }

  async #carryOut(job: Job): Promise<void> {
    const { tune, arrangement: doc } = this.#tools.score() ?? {}
    if (!tune) return
    if ('from' in job) {
      if (!doc) return
      const selected = new Set(tune.measures.slice(job.from, job.to + 1).map((m) => m.id))
      const { setup, regions } = doc
      const locks = locksAround(tune, doc, selected)
      const layer = (await this.#solve({ tune, setup, regions, locks }, job, (now) => now))?.layer
      if (!layer) return
      return this.#put(job, (score) => {
        if (!score.arrangement) return undefined
        const fresh = isFresh(score.tune, score.arrangement)
        const next = withSelection(score.tune, score.arrangement, layer, selected)
        return { tune: score.tune, arrangement: fresh ? madeFresh(score.tune, next) : next }
      })
    }
    if ('reshape' in job) return this.#reshape(job, tune, doc)
    const now = settingsOf(tune, doc)
    const settings = { ...now, ...job.change(now) }
    const { regions, locks } = settings
    const setup = setupFor(settings, this.#tools.player())
    const reply = await this.#solve({ tune, setup, regions, locks }, job, job.change)
    if (!reply) return
    const made = arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, reply)
    const { inputHash, transposed, base, tuneRev } = made
    return this.#put(job, (score) => ({
      tune: score.tune,
      arrangement: score.arrangement
        ? { ...score.arrangement, setup, regions: made.regions, inputHash, transposed, base, tuneRev }
        : made,
    }))
  }

  /** Arranges the tune as it is after a change, and puts both on the page, if the tune is still the one that was changed. */
  async #reshape(
    job: Job & { readonly reshape: TuneChange },
    tune: TuneDoc,
    doc: ArrangementDoc | null | undefined,
  ): Promise<void> {
    const settings = settingsOf(tune, doc)
    const { regions, locks } = settings
    const changed = job.reshape({ tune, regions })
    if (!changed) return
    const setup = setupFor(settings, this.#tools.player())
    const reply = await this.#solve({ ...changed, setup, locks }, job, (now) => now)
    if (!reply) return
    const made = arrangementOf(
      arrangementId(tune.id),
      tune.title,
      changed.tune,
      setup,
      changed.regions,
      reply,
    )
    const { inputHash, transposed, base, tuneRev } = made
    return this.#put(job, (score) => {
      if (score.tune !== tune) return undefined
      const { arrangement } = score
      return {
        tune: changed.tune,
        arrangement: arrangement
          ? { ...arrangement, setup, regions: changed.regions, inputHash, transposed, base, tuneRev }
          : made,
      }
    })
  }

  /** Has the worker solve an order; undefined where it failed or was stopped. */
  async #solve(
    order: ArrangeOrder,
    job: Job,
    change: SettingsChange,
  ): Promise<Extract<ArrangeReply, { kind: 'done' }> | undefined> {
    const run = this.#tools.solve(order, (progress) => {
      if (this.#run === run) this.store.setState({ progress })
    })
    this.#run = run
    const reply = await run.reply
    if (this.#run !== run) return undefined
    this.#run = undefined
    if (reply.kind === 'failed' || reply.kind === 'lost') {
      const locks = reply.kind === 'failed' ? reply.locks : []
      this.store.setState({ failed: { why: reply, locks, label: job.label, change } })
    }
    return reply.kind === 'done' ? reply : undefined
  }

  /** Puts a result on the page. The job is off the list at the same moment: its change is not counted twice. */
  async #put(job: Job, edit: (score: Score) => Score | undefined): Promise<void> {
    const put = this.#tools.edit(job.label, edit)
    this.#done(job)
    await put
  }
}

/** The setup of some settings, for a hand. */
export const setupFor = ({ instrument, tuning, capo, shift, octave }: Settings, player: Player): Setup =>
  withShift(setupOf(instrument, tuning, { fret: capo }, player), shift, octave)

/** The settings as they will stand when all that waits was carried out. */
export const settingsAfter = (now: Settings, waiting: readonly Job[]): Settings =>
  waiting.reduce((s, job) => ('change' in job ? { ...s, ...job.change(s) } : s), now)
