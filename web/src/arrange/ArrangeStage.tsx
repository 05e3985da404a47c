import { Alert, Button } from '@mantine/core'
import {
  hertz,
  isSolo,
  pitchAt,
  regionAt,
  withVariant,
  writtenOut,
  type Alternative,
  type Id,
  type Layer,
} from '@velvet-porch/core'
import { lazy, Suspense, useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { BackingHint } from './BackingHint.tsx'
import { Neck } from '../neck/Neck.tsx'
import { handAt, withReadyFingers } from '../neck/handMove.ts'
import { PlayControl } from '../play/PlayControl.tsx'
import { player } from '../play/player.ts'
import { usePlaying } from '../play/usePlaying.ts'
import { Sheet, type MarkedMeasures } from '../sheet/Sheet.tsx'
import { sheetModel, type Spot } from '../sheet/sheetModel.ts'
import { usePrefs } from '../store/prefs.ts'
import { useArrangement, useTune } from '../store/useTune.ts'
import { TuneGate } from '../tune/TuneGate.tsx'
import { ArrangeHead } from './ArrangeHead.tsx'
import { AccompanyRemarks } from './AccompanyRemarks.tsx'
import { AuditLine } from './AuditLine.tsx'
import { EasierFuller } from './EasierFuller.tsx'
import { EffortRibbon } from './EffortRibbon.tsx'
import { changedNotes, lockedTargets, withWay } from './shownNotes.ts'
import { HandText, NeckLegend, StretchText } from './HandText.tsx'
import { LeftOutLine } from './LeftOutLine.tsx'
import { Locks } from './Locks.tsx'
import { OrnamentsLeft } from './OrnamentsLeft.tsx'
import { Ossias } from './Ossias.tsx'
import { OtherWays } from './OtherWays.tsx'
import { Pins } from './Pins.tsx'
import { SoundedAs } from './SoundedAs.tsx'
import { Reasons } from './Reasons.tsx'
import { useWriting } from '../write/useWriting.ts'
import { fretEdit } from '../write/fretEdit.ts'
import { useArrangeActions } from './useArrangeActions.ts'
import { useArranger } from './useArranger.ts'
import type { Cell } from '../write/cells.ts'
import { useAudit } from './useAudit.ts'
import { usePrevious } from './usePrevious.ts'

const TabWriteBar = lazy(async () => ({
  default: (await import('../write/TabWriteBar.tsx')).TabWriteBar,
}))

/** The bench: effort, sheet, standing neck and reasons of one arrangement. */
export function ArrangeStage() {
  const id = useParams().id!
  const opened = useTune(id)
  return <TuneGate opened={opened}>{() => <Bench key={id} id={id} />}</TuneGate>
}

function Bench({ id }: { id: string }) {
  const { t } = useTranslation()
  const { sheet } = usePrefs()
  const opened = useTune(id)
  const tune = opened.state === 'ready' ? opened.doc : undefined
  const doc = useArrangement(id)
  const arranger = useArranger(tune, doc)
  const previous = usePrevious(doc)
  const [comparing, setComparing] = useState(false)
  const [tried, setTried] = useState<Alternative>()
  const [trial, setTrial] = useState<Layer>()
  const [ossia, setOssia] = useState<Id>()
  const before = comparing ? previous : undefined
  const shown = useMemo(() => {
    const base = before?.doc ?? doc
    if (!base || before) return base
    if (trial) return { ...base, base: trial }
    const kept = base.variants.find((v) => v.id === ossia)
    if (kept) return { ...base, base: withVariant(base.base, kept) }
    return tried ? withWay(base, tried) : base
  }, [before, doc, tried, trial, ossia])
  const fits =
    tune !== undefined &&
    shown !== undefined &&
    (!shown || shown.base.notes.every((n) => tune.measures.some((m) => m.id === n.pos.measure)))
  // Written out, the page is another one: it can be read, heard and printed, and is changed in its signs.
  const out = useMemo(
    () =>
      sheet.form === 'out' && tune && shown && fits
        ? writtenOut({ tune, arrangement: { ...shown } })
        : undefined,
    [sheet.form, tune, shown, fits],
  )
  const signs = useMemo(
    () => (tune ? sheetModel(tune, shown && fits ? shown : undefined) : undefined),
    [tune, shown, fits],
  )
  const model = useMemo(() => (out ? sheetModel(out.tune, out.arrangement) : signs), [out, signs])
  const changed = useMemo(
    () =>
      doc && (before || tried || trial || ossia) && shown
        ? changedNotes(before ? before.doc : doc, before ? doc : shown)
        : undefined,
    [doc, before, tried, trial, ossia, shown],
  )
  const [chosen, setSpot] = useState<Spot>()
  const [marked, setMarked] = useState<MarkedMeasures>()
  const [why, setWhy] = useState(false)
  const spot = chosen && model && chosen.measure < model.tune.measures.length ? chosen : undefined
  const { toggle, cursor } = usePlaying(model, spot, marked)
  const compare = useCallback(() => setComparing((on) => !on), [])
  const hand = model && spot ? handAt(model, spot) : undefined
  const down = useMemo(() => withReadyFingers(hand), [hand])
  const plucked = useMemo(
    () =>
      model && spot ? (model.notes.get(spot.measure) ?? []).filter((n) => n.pos.tick === spot.tick) : [],
    [model, spot],
  )
  const writing = useWriting(id)
  const mayWrite = doc !== null && fits && !out && !before && !tried && !trial && !ossia
  const pen = writing.on && mayWrite ? writing : undefined
  const hear = useCallback(
    (string: number, fret: number) => {
      if (!model?.setup) return
      void player.pluck(string, hertz(pitchAt(model.setup, { string, fret })))
      // While writing, a place on the neck is written where the pen stands.
      if (!pen?.cell) return
      pen.setCell({ ...pen.cell, string })
      void pen.run(fretEdit(model, pen, string, fret))
    },
    [model, pen],
  )
  const { setOn, setCell } = writing
  const onCell = useCallback(
    (cell: Cell) => {
      setCell(cell)
      setSpot({ measure: cell.measure, tick: cell.tick })
    },
    [setCell],
  )
  const write = useCallback(() => setOn((on) => !on), [setOn])
  useArrangeActions(id, arranger, doc, toggle, previous ? compare : undefined, mayWrite ? write : undefined)
  const sheetWriting = useMemo(
    () => (pen ? { cell: pen.cell, onCell, step: pen.pen.ticks } : undefined),
    [pen, onCell],
  )
  const settled = fits && !arranger.stale && arranger.progress === undefined
  // What stands beside the sheet speaks of the finished arrangement alone.
  const speaks = Boolean(tune && doc && settled && !before && !out)
  const checked = useMemo(() => (speaks && tune && doc ? { tune, doc } : undefined), [speaks, tune, doc])
  const { report, faults } = useAudit(checked)
  const lit = useMemo(() => ({ changed, locked: lockedTargets(doc), faults }), [changed, doc, faults])
  if (!model || !signs || doc === undefined) return null
  const under =
    spot && doc
      ? doc.regions[regionAt(model.tune, doc.regions, model.tune.measures[spot.measure]!.id)]
      : undefined
  const backing = under !== undefined && !isSolo(under.style) ? under.style : undefined
  const ready = checked ? { ...checked, model } : undefined
  return (
    <div className={pen ? 'bench writing' : 'bench'}>
      <div className="bench-head">
        <ArrangeHead
          id={id}
          model={signs}
          doc={doc}
          arranger={arranger}
          spot={out ? undefined : spot}
          onSpot={out ? undefined : setSpot}
          previous={previous?.label}
          writing={mayWrite ? writing : undefined}
          comparing={Boolean(before)}
          onCompare={setComparing}
        />
        {before ? (
          <Alert color="lamp" mt="xs" p="xs" data-testid="comparing">
            {t('arrange.compare.shown', { label: before.label, count: changed?.size ?? 0 })}{' '}
            <Button size="compact-sm" ml="sm" onClick={compare}>
              {t('arrange.compare.back')}
            </Button>
          </Alert>
        ) : null}
        {doc && ossia && doc.variants.some((v) => v.id === ossia) ? (
          <Alert color="lamp" mt="xs" p="xs" data-testid="ossia-shown">
            {t('easier.shown', { what: doc.variants.find((v) => v.id === ossia)!.name })}{' '}
            <Button size="compact-sm" ml="sm" onClick={() => setOssia(undefined)}>
              {t('easier.hide')}
            </Button>
          </Alert>
        ) : null}
        {arranger.failed ? (
          <Alert
            color="red"
            mt="xs"
            title={t('arrange.failed')}
            withCloseButton
            closeButtonLabel={t('arrange.dismiss')}
            onClose={arranger.forget}
          >
            {arranger.failed.message}{' '}
            {arranger.failed.locks.length > 0 ? (
              <Button
                size="compact-sm"
                ml="sm"
                onClick={() => {
                  const { settings, locks, label } = arranger.failed!
                  void arranger.arrange(
                    { ...settings, locks: settings.locks.filter((l) => !locks.includes(l.id)) },
                    label,
                  )
                }}
              >
                {t('arrange.withoutThem')}
              </Button>
            ) : (
              t('arrange.tryLower')
            )}
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
        {pen && doc ? (
          <Suspense>
            <TabWriteBar model={model} doc={doc} writing={pen} marked={marked} />
          </Suspense>
        ) : null}
        {tune?.pins?.length ? <Pins tune={tune} /> : null}
        <EffortRibbon model={model} doc={out?.arrangement ?? doc} spot={spot} onSpot={setSpot} />
      </div>
      <div className="bench-sheet">
        <Sheet
          model={model}
          layers={sheet}
          perLine={sheet.perLine}
          spot={spot}
          onSpot={setSpot}
          marked={marked}
          onMark={setMarked}
          cursor={cursor}
          lit={lit}
          writing={sheetWriting}
        />
      </div>
      <aside className="bench-side">
        <HandText model={model} spot={spot} hand={down} />
        {model.setup ? <Neck setup={model.setup} hand={down} plucked={plucked} onHear={hear} /> : null}
        {hand ? <NeckLegend /> : null}
        {model.setup ? <StretchText setup={model.setup} hand={down} /> : null}
        <Reasons grip={hand?.now} open={why} onOpen={setWhy}>
          {backing ? <BackingHint style={backing} /> : null}
          {why && ready && spot && !backing ? (
            <OtherWays {...ready} arranger={arranger} spot={spot} tried={tried} onTry={setTried} />
          ) : null}
        </Reasons>
        {ready && spot && !backing ? (
          <SoundedAs model={model} doc={ready.doc} arranger={arranger} spot={spot} />
        ) : null}
        {doc && fits && !before && !out && !backing ? (
          <Locks
            model={model}
            doc={doc}
            arranger={arranger}
            spot={spot}
            grip={hand?.now}
            blamed={arranger.failed?.locks ?? NO_LOCKS}
            onSpot={setSpot}
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
              onTry={setTrial}
            />
            <Ossias {...ready} shown={ossia} onShow={setOssia} />
            <AccompanyRemarks {...ready} onSpot={setSpot} />
            <OrnamentsLeft {...ready} onSpot={setSpot} />
            <LeftOutLine {...ready} onSpot={setSpot} />
            <AuditLine tune={ready.tune} report={report} onSpot={setSpot} />
          </>
        ) : null}
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

const NO_LOCKS: readonly string[] = []
