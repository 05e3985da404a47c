import {
  isSolo,
  regionAt,
  type Alternative,
  type ArrangementDoc,
  type Id,
  type Layer,
  type TuneDoc,
} from '@velvet-porch/core'
import { memo, useMemo, useState } from 'react'
import { Neck } from '../../score/neck/Neck.tsx'
import { handAt, withReadyFingers } from '../../score/neck/handMove.ts'
import type { MarkedMeasures } from '../../score/sheet/Sheet.tsx'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { AccompanyRemarks } from './AccompanyRemarks.tsx'
import { AuditLine } from './AuditLine.tsx'
import { BackingHint } from './BackingHint.tsx'
import { EasierFuller } from './EasierFuller.tsx'
import { HandText, NeckLegend, StretchText } from './HandText.tsx'
import { LeftOutLine } from './LeftOutLine.tsx'
import { Locks } from './Locks.tsx'
import { OrnamentsLeft } from './OrnamentsLeft.tsx'
import { Ossias } from './Ossias.tsx'
import { Alternatives } from './Alternatives.tsx'
import { Reasons } from './Reasons.tsx'
import { SoundedAs } from './SoundedAs.tsx'
import type { BenchArranger } from './useArranger.ts'
import type { useAudit } from './useAudit.ts'

interface Props {
  readonly model: SheetModel
  readonly doc: ArrangementDoc | null
  readonly arranger: BenchArranger
  readonly spot: SheetPosition | undefined
  readonly marked: MarkedMeasures | undefined
  readonly onSpot: (spot: SheetPosition) => void
  readonly onHear: (string: number, fret: number) => void
  /** Tune and finished arrangement, where what is shown is just that. */
  readonly checked: { readonly tune: TuneDoc; readonly doc: ArrangementDoc } | undefined
  readonly report: ReturnType<typeof useAudit>['report']
  /** True where the arrangement as it stands is shown, and may be locked. */
  readonly lockable: boolean
  readonly tried: Alternative | undefined
  readonly onTry: (way: Alternative | undefined) => void
  readonly trial: Layer | undefined
  readonly onTrial: (layer: Layer | undefined) => void
  readonly ossia: Id | undefined
  readonly onOssia: (ossia: Id | undefined) => void
}

/** What stands beside the sheet: the hand at the chosen moment, its reasons, other ways, and what the audit says. */
export const BenchSide = memo(function BenchSide(props: Props) {
  const { model, doc, arranger, spot, marked, onSpot, onHear, checked, report, lockable } = props
  const { tried, onTry, trial, onTrial, ossia, onOssia } = props
  const [why, setWhy] = useState(false)
  const hand = useMemo(() => (spot ? handAt(model, spot) : undefined), [model, spot])
  const down = useMemo(() => withReadyFingers(hand), [hand])
  const plucked = useMemo(
    () => (spot ? (model.notes.get(spot.measure) ?? []).filter((n) => n.pos.tick === spot.tick) : []),
    [model, spot],
  )
  const under =
    spot && doc
      ? doc.regions[regionAt(model.tune, doc.regions, model.tune.measures[spot.measure]!.id)]
      : undefined
  const backing = under !== undefined && !isSolo(under.style) ? under.style : undefined
  const ready = checked ? { ...checked, model } : undefined
  return (
    <aside className="bench-side">
      <HandText model={model} spot={spot} hand={down} />
      {model.setup ? <Neck setup={model.setup} hand={down} plucked={plucked} onHear={onHear} /> : null}
      {hand ? <NeckLegend /> : null}
      {model.setup ? <StretchText setup={model.setup} hand={down} /> : null}
      <Reasons grip={hand?.now} open={why} onOpen={setWhy}>
        {backing ? <BackingHint style={backing} /> : null}
        {why && ready && spot && !backing ? (
          <Alternatives {...ready} arranger={arranger} spot={spot} tried={tried} onTry={onTry} />
        ) : null}
      </Reasons>
      {ready && spot && !backing ? (
        <SoundedAs model={model} doc={ready.doc} arranger={arranger} spot={spot} />
      ) : null}
      {doc && lockable && !backing ? (
        <Locks
          model={model}
          doc={doc}
          arranger={arranger}
          spot={spot}
          grip={hand?.now}
          blamed={arranger.failed?.locks ?? NO_LOCKS}
          onSpot={onSpot}
        />
      ) : null}
      {ready ? (
        <>
          <EasierFuller
            {...ready}
            arranger={arranger}
            spot={spot}
            marked={marked}
            tried={trial}
            onTry={onTrial}
          />
          <Ossias {...ready} spot={spot} marked={marked} shown={ossia} onShow={onOssia} />
          <AccompanyRemarks {...ready} onSpot={onSpot} />
          <OrnamentsLeft {...ready} onSpot={onSpot} />
          <LeftOutLine {...ready} onSpot={onSpot} />
          <AuditLine tune={ready.tune} report={report} onSpot={onSpot} />
        </>
      ) : null}
    </aside>
  )
})

const NO_LOCKS: readonly string[] = []
