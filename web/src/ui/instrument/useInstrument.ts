import {
  highestCapo,
  INSTRUMENTS,
  readTuning,
  setupOf,
  type InstrumentKind,
  type Setup,
  type TuningFault,
} from '@velvet-porch/core/instrument'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { useSearchParams } from 'react-router'
import { useCurrentPlayer } from '../../state/players.ts'

export interface InstrumentChoice {
  readonly kind: InstrumentKind
  /** As typed or chosen: a tuning's id or its notes from the lowest string. */
  readonly tuningText: string
  readonly tuningFault: TuningFault | undefined
  readonly capo: number
  /** Strings under a partial capo; undefined for all. */
  readonly capoStrings: readonly number[] | undefined
  readonly setup: Setup
}

/** Parameters of the address to set; empty ones are taken out. A function is given the latest. */
type Entries = Readonly<Partial<Record<string, string>>>
export type AddressChange = Entries | ((latest: URLSearchParams) => Entries)

/** The instrument of the reference pages, held in the address so that a page can be kept and shared. */
export function useInstrument(): InstrumentChoice & {
  set: (change: AddressChange) => void
} {
  const [params, setParams] = useSearchParams()
  const player = useCurrentPlayer()
  const kind = kindOf(params.get('instrument'))
  const tuningText = params.get('tuning') ?? 'standard'
  const wantedCapo = Number(params.get('capo') ?? 0)
  const capoStringsText = params.get('capoStrings')
  const choice = useMemo((): InstrumentChoice => {
    const read = readTuning(kind, tuningText)
    const tuning = 'tuning' in read ? read.tuning : INSTRUMENTS[kind].usual
    const capo = Number.isInteger(wantedCapo) ? Math.min(Math.max(wantedCapo, 0), highestCapo(kind)) : 0
    const strings = capoStringsText
      ?.split(',')
      .map(Number)
      .filter((s) => s >= 1 && s <= tuning.length)
    const capoStrings = strings?.length ? strings : undefined
    return {
      kind,
      tuningText,
      tuningFault: 'fault' in read ? read.fault : undefined,
      capo,
      capoStrings,
      setup: setupOf(kind, tuning, { fret: capo, ...(capoStrings ? { strings: capoStrings } : {}) }, player),
    }
  }, [kind, tuningText, wantedCapo, capoStringsText, player])
  // Changes that come faster than the address is written must not lose one another.
  const latest = useRef(params)
  useEffect(() => {
    latest.current = params
  }, [params])
  const set = useCallback(
    (change: AddressChange) => {
      const next = new URLSearchParams(latest.current)
      const entries = typeof change === 'function' ? change(latest.current) : change
      for (const [key, value] of Object.entries(entries)) {
        if (value) next.set(key, value)
        else next.delete(key)
      }
      latest.current = next
      setParams(next, { replace: true })
    },
    [setParams],
  )
  return { ...choice, set }
}

function kindOf(text: string | null): InstrumentKind {
  return text !== null && text in INSTRUMENTS ? (text as InstrumentKind) : 'guitar'
}
