import { isSolo, regionAt } from '@velvet-porch/core/document'
import { Text } from '@mantine/core'
import { memo, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Neck } from '../../../score/neck/Neck.tsx'
import { handAt, withReadyFingers } from '../../../score/neck/handMove.ts'
import { TasteLine } from '../taste/TasteLine.tsx'
import { BetterKeyLine } from '../BetterKeyLine.tsx'
import { AccompanyRemarks } from '../AccompanyRemarks.tsx'
import { AuditLine } from '../AuditLine.tsx'
import { BackingHint } from '../BackingHint.tsx'
import { EasierFuller } from '../EasierFuller.tsx'
import { HandText, NeckLegend, StretchText } from '../HandText.tsx'
import { LeftOutLine } from '../LeftOutLine.tsx'
import { Locks } from '../Locks.tsx'
import { OrnamentsLeft } from '../OrnamentsLeft.tsx'
import { MeasureActions } from '../MeasureActions.tsx'
import { Ossias } from '../Ossias.tsx'
import { Alternatives } from '../Alternatives.tsx'
import { Reasons } from '../Reasons.tsx'
import { SoundedAs } from '../SoundedAs.tsx'
import { useBench, useBenchPage, useSetBench } from './BenchContext.ts'
import css from './BenchSide.module.css'

/** What stands beside the sheet: the hand at the chosen moment, its reasons, other ways, and what the audit says. */
export const BenchSide = memo(function BenchSide() {
  const { model, doc, out, arranger, position, marked, hear, checked, report, lockable } = useBenchPage()
  const [tried, trial, ossia] = [useBench((s) => s.tried), useBench((s) => s.trial), useBench((s) => s.ossia)]
  const onPosition = useSetBench('position')
  const onTry = useSetBench('tried')
  const onTrial = useSetBench('trial')
  const onOssia = useSetBench('ossia')
  const { t } = useTranslation()
  const [why, setWhy] = useState(false)
  // Before a note is chosen the neck shows where the hand begins.
  const shown = position ?? model.positions[0]
  const hand = useMemo(() => (shown ? handAt(model, shown) : undefined), [model, shown])
  const down = useMemo(() => withReadyFingers(hand), [hand])
  const plucked = useMemo(
    () => (shown ? (model.notes.get(shown.measure) ?? []).filter((n) => n.pos.tick === shown.tick) : []),
    [model, shown],
  )
  const under =
    position && doc
      ? doc.regions[regionAt(model.tune, doc.regions, model.tune.measures[position.measure]!.id)]
      : undefined
  const backing = under !== undefined && !isSolo(under.style) ? under.style : undefined
  const ready = checked ? { ...checked, model } : undefined
  return (
    <aside className={css['bench-side']}>
      <HandText model={model} position={shown} hand={down}>
        {shown && !out ? <MeasureActions position={shown} /> : null}
      </HandText>
      {position ? null : <Text size="xs">{t('neck.none')}</Text>}
      {model.setup ? <Neck setup={model.setup} hand={down} plucked={plucked} onHear={hear} /> : null}
      {hand ? <NeckLegend /> : null}
      {model.setup ? <StretchText setup={model.setup} hand={down} /> : null}
      {ready ? <TasteLine {...ready} arranger={arranger} tried={trial} onTry={onTrial} /> : null}
      <Reasons grip={hand?.now} open={why} onOpen={setWhy}>
        {backing ? <BackingHint style={backing} /> : null}
        {why && ready && position && !backing ? (
          <Alternatives {...ready} arranger={arranger} position={position} tried={tried} onTry={onTry} />
        ) : null}
      </Reasons>
      {ready && position && !backing ? (
        <SoundedAs model={model} doc={ready.doc} arranger={arranger} position={position} />
      ) : null}
      {doc && lockable && !backing ? (
        <Locks
          model={model}
          doc={doc}
          arranger={arranger}
          position={position}
          grip={hand?.now}
          blamed={arranger.failed?.locks ?? NO_LOCKS}
          onPosition={onPosition}
        />
      ) : null}
      {ready ? (
        <>
          <EasierFuller
            {...ready}
            arranger={arranger}
            position={position}
            marked={marked}
            tried={trial}
            onTry={onTrial}
          />
          <Ossias {...ready} position={position} marked={marked} shown={ossia} onShow={onOssia} />
          <BetterKeyLine {...ready} arranger={arranger} />
          <AccompanyRemarks {...ready} onPosition={onPosition} />
          <OrnamentsLeft {...ready} onPosition={onPosition} />
          <LeftOutLine {...ready} onPosition={onPosition} />
          <AuditLine tune={ready.tune} report={report} onPosition={onPosition} />
        </>
      ) : null}
    </aside>
  )
})

const NO_LOCKS: readonly string[] = []
