import { Alert, Button } from '@mantine/core'
import { hertz, pitchAt } from '@velvet-porch/core'
import { useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Neck } from '../neck/Neck.tsx'
import { handAt } from '../neck/handMove.ts'
import { PlayControl } from '../play/PlayControl.tsx'
import { player } from '../play/player.ts'
import { usePlaying } from '../play/usePlaying.ts'
import { Sheet, type MarkedMeasures } from '../sheet/Sheet.tsx'
import { sheetModel, type Spot } from '../sheet/sheetModel.ts'
import type { TabLayers } from '../sheet/TabLayer.tsx'
import { useArrangement, useTune } from '../store/useTune.ts'
import { TuneGate } from '../tune/TuneGate.tsx'
import { ArrangeHead } from './ArrangeHead.tsx'
import { AuditLine } from './AuditLine.tsx'
import { EffortRibbon } from './EffortRibbon.tsx'
import { HandText, NeckLegend, StretchText } from './HandText.tsx'
import { Pins } from './Pins.tsx'
import { Reasons } from './Reasons.tsx'
import { useArrangeActions } from './useArrangeActions.ts'
import { useArranger } from './useArranger.ts'

/** The bench: effort, sheet, standing neck and reasons of one arrangement. */
export function ArrangeStage() {
  const id = useParams().id!
  const opened = useTune(id)
  return <TuneGate opened={opened}>{() => <Bench key={id} id={id} />}</TuneGate>
}

function Bench({ id }: { id: string }) {
  const { t } = useTranslation()
  const opened = useTune(id)
  const tune = opened.state === 'ready' ? opened.doc : undefined
  const doc = useArrangement(id)
  const arranger = useArranger(tune, doc)
  const fits =
    tune !== undefined &&
    doc !== undefined &&
    (!doc || doc.base.notes.every((n) => tune.measures.some((m) => m.id === n.pos.measure)))
  const model = useMemo(
    () => (tune ? sheetModel(tune, doc && fits ? doc : undefined) : undefined),
    [tune, doc, fits],
  )
  const [chosen, setSpot] = useState<Spot>()
  const [marked, setMarked] = useState<MarkedMeasures>()
  const [layers, setLayers] = useState<TabLayers>({ fingers: true, picking: false })
  const spot = chosen && model && chosen.measure < model.tune.measures.length ? chosen : undefined
  const { toggle, cursor } = usePlaying(model, spot, marked)
  useArrangeActions(id, arranger, doc, toggle)
  const hand = model && spot ? handAt(model, spot) : undefined
  const plucked = useMemo(
    () =>
      model && spot ? (model.notes.get(spot.measure) ?? []).filter((n) => n.pos.tick === spot.tick) : [],
    [model, spot],
  )
  const hear = useCallback(
    (string: number, fret: number) => {
      if (model?.setup) void player.pluck(string, hertz(pitchAt(model.setup, { string, fret })))
    },
    [model],
  )
  if (!model || doc === undefined) return null
  return (
    <div className="bench">
      <div className="bench-head">
        <ArrangeHead
          id={id}
          model={model}
          doc={doc}
          arranger={arranger}
          layers={layers}
          onLayers={setLayers}
        />
        {arranger.failed ? (
          <Alert color="red" mt="xs" title={t('arrange.failed')}>
            {arranger.failed} {t('arrange.tryLower')}
          </Alert>
        ) : null}
        {arranger.stale && arranger.progress === undefined && doc ? (
          <Alert color="lamp" mt="xs" p="xs">
            {t('arrange.stale')}{' '}
            <Button size="compact-sm" ml="sm" onClick={() => void arranger.again()}>
              {t('arrange.again')}
            </Button>
          </Alert>
        ) : null}
        {arranger.otherHand && !arranger.stale && arranger.progress === undefined && doc ? (
          <Alert color="lamp" mt="xs" p="xs">
            {t('arrange.otherHand', { name: arranger.otherHand.name || t('instrument.adult') })}{' '}
            <Button size="compact-sm" ml="sm" onClick={() => void arranger.again()}>
              {t('arrange.again')}
            </Button>
          </Alert>
        ) : null}
        {tune?.pins?.length ? <Pins tune={tune} /> : null}
        <EffortRibbon model={model} spot={spot} onSpot={setSpot} />
      </div>
      <div className="bench-sheet">
        <Sheet
          model={model}
          layers={layers}
          spot={spot}
          onSpot={setSpot}
          marked={marked}
          onMark={setMarked}
          cursor={cursor}
        />
      </div>
      <aside className="bench-side">
        <HandText model={model} spot={spot} hand={hand} />
        {model.setup ? <Neck setup={model.setup} hand={hand} plucked={plucked} onHear={hear} /> : null}
        {hand ? <NeckLegend /> : null}
        {model.setup ? <StretchText setup={model.setup} hand={hand} /> : null}
        <Reasons grip={hand?.now} />
        {tune && doc && fits && !arranger.stale ? <AuditLine tune={tune} doc={doc} onSpot={setSpot} /> : null}
      </aside>
      <PlayControl
        onToggle={toggle}
        marked={marked}
        numberOf={(m) => model.numbers[m]!}
        measure={spot?.measure}
        onMark={setMarked}
      />
    </div>
  )
}
