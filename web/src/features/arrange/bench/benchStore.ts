import type { ArrangementDoc, Id, Layer, TuneDoc } from '@velvet-porch/core/document'
import type { Alternative } from '@velvet-porch/core/arrange'
import { createStore, type StoreApi } from 'zustand'
import type { MarkedMeasures } from '../../../score/sheet/selection.ts'
import type { SheetPosition } from '../../../score/sheet/sheetModel.ts'

/** What is looked at on the bench: where, which measures, and which other version of the arrangement, if any. */
export interface BenchState {
  readonly position: SheetPosition | undefined
  readonly marked: MarkedMeasures | undefined
  /** Looks at the arrangement before its last change. */
  readonly comparing: boolean
  /** The hand's own versions of measures are put aside. */
  readonly asWritten: boolean
  /** Another way to play a moment or a measure, tried on the sheet. */
  readonly tried: Alternative | undefined
  /** A version of another effort, tried on the sheet. */
  readonly trial: Layer | undefined
  /** The arrangement as a choice that is only looked at would make it. */
  readonly preview: ArrangementDoc | undefined
  readonly ossia: Id | undefined
  /** The version that is shown beside the bench's, and which of the two Play plays. */
  readonly beside: Id | undefined
  readonly heard: 'bench' | 'version'
}

export type BenchStore = StoreApi<BenchState>

export const createBench = (marked: MarkedMeasures | undefined): BenchStore =>
  createStore<BenchState>(() => ({
    position: undefined,
    marked,
    comparing: false,
    asWritten: false,
    tried: undefined,
    trial: undefined,
    preview: undefined,
    ossia: undefined,
    beside: undefined,
    heard: 'bench',
  }))

/** Measures that the address names, as a link from the lesson does. */
export function markedIn(address: URLSearchParams, tune: TuneDoc | undefined): MarkedMeasures | undefined {
  const named = (key: string) => Number(address.get(key) ?? NaN)
  const [from, to] = [named('from'), named('to')]
  const last = (tune?.measures.length ?? Infinity) - 1
  return Number.isInteger(from) && Number.isInteger(to) && from >= 0 && from <= to && to <= last
    ? { from, to }
    : undefined
}
