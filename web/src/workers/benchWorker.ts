import { proxy } from 'comlink'
import type { PackedRecording } from '@velvet-porch/core/formats'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { Comparison, TasteDoc } from '@velvet-porch/core/taste'
import type { MeasureRange } from '@velvet-porch/core/arrange'
import type { AlternativesTarget, ArrangeOrder, BenchApi, ReadingOrder } from './benchApi.ts'
import { arrangingBy } from './arrangeRun.ts'
import { Supervised } from './supervised.ts'

/** The worker that reads and arranges. */
const bench = new Supervised<BenchApi>(
  () => new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' }),
)

export const readInWorker = (text: string) => bench.call('read', text)

export const checkInWorker = (tune: unknown, arrangement: unknown) => bench.call('check', tune, arrangement)

export const understandInWorker = (text: string, order: ReadingOrder) => bench.call('understand', text, order)

/** Everything as a zip, with recordings. @param onShare hears the share that is done */
export const packInWorker = (
  text: Blob,
  recordings: readonly PackedRecording[],
  onShare: (share: number) => void,
) => bench.call('pack', text, recordings, proxy(onShare))

export const unpackInWorker = (zip: Uint8Array) => bench.call('unpack', zip)

export const auditInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench.call('audit', tune, doc)

export const alternativesInWorker = (order: ArrangeOrder, target: AlternativesTarget) =>
  bench.call('alternatives', order, target)

export const harmoniseInWorker = (tune: TuneDoc) => bench.call('harmonise', tune)

export const leftOutInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench.call('leftOut', tune, doc)

export const betterKeyInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench.call('betterKey', tune, doc)
export const remarksInWorker = (tune: TuneDoc, doc: ArrangementDoc) => bench.call('remarks', tune, doc)

export const ornamentsLeftInWorker = (tune: TuneDoc, doc: ArrangementDoc) =>
  bench.call('ornamentsLeft', tune, doc)

export const versionsInWorker = (order: ArrangeOrder, range: MeasureRange) =>
  bench.call('versions', order, range)

export const noticesInWorker = (taste: TasteDoc) => bench.call('notices', taste)
export const fitInWorker = (comparisons: readonly Comparison[]) => bench.call('fit', comparisons)

export const arrangeInWorker = arrangingBy(bench)
