import {
  hertz,
  chosenNotes,
  pitchAt,
  withVariant,
  writtenOut,
  type Alternative,
  type Id,
  type Layer,
  type TuneDoc,
} from '@velvet-porch/core'
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { PlayControl } from '../../score/playback/PlayControl.tsx'
import { player } from '../../score/playback/player.ts'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { Sheet, type MarkedMeasures } from '../../score/sheet/Sheet.tsx'
import { sheetMaker, sheetModel, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import { usePrefs } from '../../state/prefs.ts'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import type { Cell } from '../../score/sheet/cells.ts'
import { fretEdit } from '../../score/edit/fretEdit.ts'
import { useVersions, versionOn } from '../../state/versions.ts'
import { useWriting } from '../../score/edit/useWriting.ts'
import { BenchHead } from './BenchHead.tsx'
import { BenchSide } from './BenchSide.tsx'
import { BesideSheet } from './BesideSheet.tsx'
import { changedNotes, lockedTargets, withAlternative } from './shownNotes.ts'
import { useAsPlayed } from './useAsPlayed.ts'
import { useArrangeActions } from './useArrangeActions.ts'
import { Part } from '../../ui/Part.tsx'
import { useArranger } from './useArranger.ts'
import { useAudit } from './useAudit.ts'
import { usePrevious } from './usePrevious.ts'

/** The bench: effort, sheet, standing neck and reasons of one arrangement. */
export function ArrangeStage() {
  const id = useParams().id!
  const opened = useTune(id)
  return <TuneGate opened={opened}>{() => <Bench key={id} id={id} />}</TuneGate>
}

const Page = memo(Sheet)

const NOTHING: ReadonlySet<Id> = new Set()

/**
 * What is written is on the sheet at once; what stands around the sheet follows as soon as there is time for it, so that
 * nobody waits for it while typing. `late` is what is shown there.
 */
function Bench({ id }: { id: string }) {
  const { sheet } = usePrefs()
  const opened = useTune(id)
  const tune = opened.state === 'ready' ? opened.doc : undefined
  const doc = useArrangement(id)
  const [asWritten, setAsWritten] = useState(false)
  const { played, own } = useAsPlayed(tune, doc, asWritten)
  const score = useMemo(() => ({ tune, doc }), [tune, doc])
  const writing = useWriting(id)
  // Only who types must not wait for what stands around the sheet; whoever clicks there sees what he clicks.
  const typing = writing.on
  const later = useDeferredValue(score)
  const lateScore = typing ? later : score
  const arranger = useArranger(id, lateScore.tune, lateScore.doc)
  const previous = usePrevious(lateScore.doc)
  const [comparing, setComparing] = useState(false)
  const [tried, setTried] = useState<Alternative>()
  const [trial, setTrial] = useState<Layer>()
  const [ossia, setOssia] = useState<Id>()
  const versions = useVersions(id)
  const [besideId, setBeside] = useState<Id>()
  const [heard, setHeard] = useState<'bench' | 'version'>('bench')
  const version = versions.find((v) => v.id === besideId)
  const before = useMemo(() => (comparing ? previous?.doc() : undefined), [comparing, previous])
  const shown = useMemo(() => {
    if (!doc || !played || before) return before ?? doc
    if (trial) return { ...doc, base: trial }
    const kept = doc.variants.find((v) => v.id === ossia)
    if (kept) return { ...doc, base: withVariant(doc.base, kept) }
    return tried ? withAlternative(doc, tried) : played
  }, [before, doc, played, tried, trial, ossia])
  const measures = tune?.measures
  const known = useMemo(() => new Set(measures?.map((m) => m.id)), [measures])
  const fits =
    tune !== undefined &&
    shown !== undefined &&
    (!shown || shown.base.notes.every((n) => known.has(n.pos.measure)))
  // Written out, the page is another one: it can be read, heard and printed, and is changed in its signs.
  const out = useMemo(
    () =>
      sheet.form === 'out' && tune && shown && fits
        ? writtenOut({ tune, arrangement: { ...shown } })
        : undefined,
    [sheet.form, tune, shown, fits],
  )
  const plain = sheet.durations === 'plain'
  const [signsOf] = useState(sheetMaker)
  const signs = useMemo(
    () => (tune ? signsOf(tune, shown && fits ? shown : undefined, plain) : undefined),
    [signsOf, tune, shown, fits, plain],
  )
  const model = useMemo(
    () => (out ? sheetModel(out.tune, out.arrangement, plain) : signs),
    [out, signs, plain],
  )
  const changed = useMemo(
    () =>
      doc && (before || tried || trial || ossia) && shown
        ? changedNotes(before ?? doc, before ? doc : shown)
        : undefined,
    [doc, before, tried, trial, ossia, shown],
  )
  const beside = useMemo(() => {
    if (!version || !tune || !doc) return undefined
    const kept = versionOn(tune, version)
    return {
      model: sheetModel(tune, kept, plain),
      lit: { changed: changedNotes(doc, kept), locked: NOTHING },
      changed: changedNotes(kept, doc),
    }
  }, [version, tune, doc, plain])
  const [chosen, setSpot] = useState<SheetPosition>()
  const [address] = useSearchParams()
  const [marked, showMarked] = useState(() => markedIn(address, tune))
  const markedRef = useRef(marked)
  const markedNow = useCallback(() => markedRef.current, [])
  const setMarked = useCallback((next: MarkedMeasures | undefined) => {
    markedRef.current = next
    showMarked(next)
  }, [])
  const spot = chosen && model && chosen.measure < model.tune.measures.length ? chosen : undefined
  const mayWrite = Boolean(doc) && doc === played && fits && !out && !before && !tried && !trial && !ossia
  const pen = writing.on && mayWrite ? writing : undefined
  const penRef = useRef(pen)
  useEffect(() => {
    penRef.current = pen
  })
  const hear = useCallback(
    (string: number, fret: number) => {
      if (!model?.setup) return
      void player.pluck(string, hertz(pitchAt(model.setup, { string, fret })))
      // While writing, a place on the neck is written where the pen stands, ahead of what is drawn beside the sheet.
      const now = penRef.current
      const cell = now?.cellNow()
      if (!now || !cell) return
      now.setCell({ ...cell, string })
      void now.run(fretEdit(model, { ...now, cell }, string, fret))
    },
    [model],
  )
  const { setOn, setCell } = writing
  const onCell = useCallback(
    (cell: Cell) => {
      setCell(cell)
      setSpot({ measure: cell.measure, tick: cell.tick })
    },
    [setCell],
  )
  const cell = pen?.cell
  const step = pen?.pen.ticks
  const sheetWriting = useMemo(
    () => (step === undefined ? undefined : { cell, onCell, step }),
    [cell, onCell, step],
  )
  const now = useMemo(
    () => ({ ...score, model, signs, out, spot, marked, changed, hear, fits, before, mayWrite, writing }),
    [score, model, signs, out, spot, marked, changed, hear, fits, before, mayWrite, writing],
  )
  const after = useDeferredValue(now)
  const late = typing ? after : now
  const onPlayer = heard === 'version' && beside ? beside.model : model
  const { toggle, cursor } = usePlaying(onPlayer, spot, marked)
  const write = useCallback(() => setOn((on) => !on), [setOn])
  const compare = useCallback(() => setComparing((on) => !on), [])
  useArrangeActions(id, arranger, doc, toggle, previous ? compare : undefined, mayWrite ? write : undefined)
  const settled = late.fits && !arranger.stale && !arranger.atWork
  // What stands beside the sheet speaks of the finished arrangement alone.
  const speaks = Boolean(late.tune && late.doc && settled && !late.before && !late.out)
  const checked = useMemo(
    () => (speaks && late.tune && late.doc ? { tune: late.tune, doc: late.doc } : undefined),
    [speaks, late.tune, late.doc],
  )
  const { report, faults } = useAudit(checked)
  const choosing = pen?.choosing
  const meant = useMemo(() => {
    const range = marked ?? (cell && { from: cell.measure, to: cell.measure })
    if (!choosing || !range || !tune || !doc) return undefined
    return new Set(chosenNotes(tune, doc.base, range.from, range.to, choosing).map((n) => n.id))
  }, [choosing, marked, cell, tune, doc])
  const lit = useMemo(
    () => ({ changed: changed ?? beside?.changed, locked: lockedTargets(tune, doc), faults, meant }),
    [changed, beside, tune, doc, faults, meant],
  )
  const numberOf = useCallback((m: number) => late.model?.numbers[m] ?? 0, [late.model])
  if (!model || !late.model || !late.signs || late.doc === undefined) return null
  // Side by side, both have the same measures on a line.
  const perLine = beside ? sheet.perLine || 1 : sheet.perLine
  const page = (
    <Page
      model={model}
      layers={sheet}
      perLine={perLine}
      runsOn={sheet.layout === 'line' && !beside}
      zoom={sheet.zoom / 100}
      spot={spot}
      onSpot={setSpot}
      marked={marked}
      onMark={setMarked}
      cursor={beside && heard === 'version' ? undefined : cursor}
      lit={lit}
      writing={sheetWriting}
    />
  )
  return (
    <div className={pen ? 'bench writing' : 'bench'}>
      <Part name="head" of={[late.doc, late.model]}>
        <BenchHead
          id={id}
          tune={late.tune}
          doc={late.doc}
          model={late.model}
          signs={late.signs}
          out={late.out?.arrangement}
          arranger={arranger}
          spot={late.out ? undefined : late.spot}
          marked={late.marked}
          markedNow={markedNow}
          onSpot={setSpot}
          previous={previous?.label}
          comparing={comparing}
          onCompare={setComparing}
          changes={late.changed?.size ?? 0}
          ossia={ossia}
          onOssia={setOssia}
          own={own}
          asWritten={asWritten}
          onAsWritten={setAsWritten}
          beside={besideId}
          onBeside={setBeside}
          writing={late.mayWrite ? late.writing : undefined}
        />
      </Part>
      <div className="bench-sheet" aria-busy={arranger.atWork}>
        <Part name="sheet" of={[model, beside]}>
          {beside && version ? (
            <BesideSheet
              version={version}
              changes={new Set([...beside.changed, ...beside.lit.changed]).size}
              heard={heard}
              onHear={setHeard}
              onClose={() => setBeside(undefined)}
              bench={page}
              kept={
                <Page
                  model={beside.model}
                  layers={sheet}
                  perLine={perLine}
                  zoom={sheet.zoom / 100}
                  cursor={heard === 'version' ? cursor : undefined}
                  lit={beside.lit}
                />
              }
            />
          ) : (
            page
          )}
        </Part>
      </div>
      <Part name="side" of={[late.doc, late.spot]}>
        <BenchSide
          model={late.model}
          doc={late.doc}
          arranger={arranger}
          spot={late.spot}
          marked={late.marked}
          onSpot={setSpot}
          onHear={late.hear}
          checked={checked}
          report={report}
          lockable={late.fits && !late.before && !late.out}
          tried={tried}
          onTry={setTried}
          trial={trial}
          onTrial={setTrial}
          ossia={ossia}
          onOssia={setOssia}
        />
      </Part>
      <Part name="player" of={[late.model]}>
        <Player
          onToggle={toggle}
          marked={late.marked}
          numberOf={numberOf}
          measure={late.spot?.measure}
          onMark={setMarked}
        />
      </Part>
    </div>
  )
}

const Player = memo(PlayControl)

/** Measures that the address names, as a link from the lesson does. */
function markedIn(address: URLSearchParams, tune: TuneDoc | undefined): MarkedMeasures | undefined {
  const [from, to] = [address.get('from'), address.get('to')].map((v) => (v === null ? NaN : Number(v)))
  const last = (tune?.measures.length ?? Infinity) - 1
  return Number.isInteger(from) && Number.isInteger(to) && from! >= 0 && from! <= to! && to! <= last
    ? { from: from!, to: to! }
    : undefined
}
