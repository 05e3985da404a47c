import { Badge, Button, Group, Text } from '@mantine/core'
import type { AbcSpan, Problem, TuneDoc } from '@velvet-porch/core'
import { IconPencil } from '@tabler/icons-react'
import { lazy, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams, useSearchParams } from 'react-router'
import { useActions } from '../../state/actions.ts'
import { Sheet, type MarkedMeasures } from '../../score/sheet/Sheet.tsx'
import { NO_LAYERS } from '../../score/sheet/TabLayer.tsx'
import { useNames } from '../../ui/names/useNames.ts'
import { keysOf, sheetMaker, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import { step } from '../../state/documents.ts'
import { useTune } from '../../state/useTune.ts'
import type { Cell } from '../../score/sheet/cells.ts'
import { bySteps, eventAt, pitchAtHeight } from '../../score/edit/staffPitch.ts'
import { useWriting } from '../../score/edit/useWriting.ts'
import { AbcEditor, type AbcEditorHandle } from './AbcEditor.tsx'
import { HistoryTools } from '../../ui/HistoryTools.tsx'
import { Harmonise } from './Harmonise.tsx'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { Departures } from './Departures.tsx'
import { TextNotices } from './TextNotices.tsx'
import { SystemText } from './SystemText.tsx'
import { partIn, textOfSystem } from './textOfSystem.ts'
import { useAbcText } from './useAbcText.ts'
import { problemWords } from '../../texts/say.ts'
import { useStorageTrouble } from '../../state/storageTrouble.ts'

const StaffWriteBar = lazy(async () => ({
  default: (await import('../../score/edit/StaffWriteBar.tsx')).StaffWriteBar,
}))

/** The tune as read: the staff, its ABC beside it, and what the reader says about it. */
export function TuneStage() {
  const opened = useTune(useParams().id!)
  return <TuneGate opened={opened}>{(tune) => <TuneBench key={tune.id} tune={tune} />}</TuneGate>
}

function TuneBench({ tune }: { tune: TuneDoc }) {
  const { t } = useTranslation()
  const names = useNames()
  const abc = useAbcText(tune, t('tune.text'))
  const { text, problems, readable, edit, spans, saved, aligned } = abc
  const unstored = useStorageTrouble() !== undefined
  const [modelOf] = useState(sheetMaker)
  const [spot, setSpot] = useState<SheetPosition>()
  const [marked, setMarked] = useState<MarkedMeasures>()
  const [search] = useSearchParams()
  const writing = useWriting(tune.id, search.has('write'))
  // Text that is still to be read would be lost under the pen.
  const pen = writing.on && readable && saved ? writing : undefined
  // Typing text comes before the page, which is drawn in pieces then; what the pen writes is on it at once.
  const late = useDeferredValue(tune)
  const shown = pen ? tune : late
  const model = useMemo(() => modelOf(shown), [modelOf, shown])
  const { toggle, setCell } = writing
  const onCell = useCallback(
    (cell: Cell, stepsBelow?: number) => {
      setCell(cell)
      setSpot({ measure: cell.measure, tick: cell.tick })
      if (stepsBelow === undefined) return
      const measure = tune.measures[cell.measure]!
      const at = { measure: measure.id, tick: cell.tick }
      const pitch = pitchAtHeight(stepsBelow, measure.key)
      const now = eventAt(tune, cell)?.pitch
      if (now && bySteps(now, 0, measure.key).step === pitch.step && now.octave === pitch.octave) return
      void writing.run(now ? { do: 'pitch', at, pitch } : { do: 'note', at, ticks: writing.pen.ticks, pitch })
    },
    [setCell, tune, writing],
  )
  const sheetWriting = useMemo(
    () => (pen ? { cell: pen.cell, onCell, step: pen.pen.ticks } : undefined),
    [pen, onCell],
  )
  const editor = useRef<AbcEditorHandle>(null)
  const words = useCallback(
    (p: Problem) => {
      const { what, taken } = problemWords(t, p)
      return `${what} — ${taken}`
    },
    [t],
  )
  // A text in several voices, or one that a pen wrote anew, does not say where its systems stand.
  const parted = spans.length > 0 && shown.events.every((e) => e.voice === 0)
  const latest = useRef({ shown, text, spans })
  useEffect(() => {
    latest.current = { shown, text, spans }
  })
  const partOf = useCallback((from: number, to: number) => {
    const now = latest.current
    const range = textOfSystem(now.shown, now.text, now.spans, from, to)
    return range && partIn(now.text, range)
  }, [])
  const { numbers } = model
  const under = useMemo(
    () =>
      parted
        ? (from: number, to: number) => (
            <SystemText from={from} to={to} number={numbers[from]!} partOf={partOf} onText={edit} />
          )
        : undefined,
    [parted, numbers, partOf, edit],
  )
  useActions(
    useMemo(
      () => [
        {
          id: 'undo',
          label: t('arrange.undo', { label: t('tune.text') }),
          keys: 'Mod+Z',
          writes: true,
          run: () => void step(tune.id, 'undo'),
        },
        { id: 'write', label: t('write.openHint'), keys: 'W', writes: true, run: toggle },
        {
          id: 'redo',
          label: t('arrange.redo', { label: t('tune.text') }),
          keys: 'Mod+Shift+Z',
          writes: true,
          run: () => void step(tune.id, 'redo'),
        },
      ],
      [t, tune.id, toggle],
    ),
  )
  const tempo = tune.tempos[0]!
  const trouble = problems.filter((p) => p.severity !== 'note').length
  return (
    <div className="tune-stage">
      <div style={{ overflow: 'auto' }}>
        <div className="bench-head">
          <div className="bench-title">
            <h1>{tune.title}</h1>
            <span className="setup">
              {[
                tune.composer,
                keysOf(model, names).sounding,
                t('tune.measures', { count: tune.measures.length }),
                tempo.stated
                  ? t('tune.tempo', { bpm: Math.round(tempo.bpm) })
                  : t('tune.tempoUnstated', { bpm: tempo.bpm }),
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
            <Group gap={4} ml="auto" wrap="nowrap">
              <HistoryTools tuneId={tune.id} />
            </Group>
            <Button
              size="sm"
              variant={pen ? 'filled' : 'light'}
              leftSection={<IconPencil size={15} />}
              aria-pressed={pen !== undefined}
              disabled={!readable}
              onClick={toggle}
            >
              {t('write.open')}
            </Button>
            <Button component={Link} to={`/tunes/${tune.id}/arrange`} size="sm">
              {t('tune.arrange')}
            </Button>
          </div>
          {tune.chords.some((c) => c.origin === 'suggested') ? (
            <Text size="sm" c="dimmed" mt={4}>
              {t('tune.suggested')}
            </Text>
          ) : null}
          {pen ? (
            <Suspense>
              <StaffWriteBar model={model} writing={pen} marked={marked} />
            </Suspense>
          ) : null}
          <TextNotices abc={abc} title={tune.title} />
        </div>
        <div className="bench-sheet" style={{ overflow: 'visible' }}>
          <Sheet
            model={model}
            layers={NO_LAYERS}
            spot={pen ? pen.cell : spot}
            marked={marked}
            onMark={setMarked}
            writing={sheetWriting}
            onSpot={(s) => {
              setSpot(s)
              goToNote(tune, text, spans, s, editor.current)
            }}
            under={pen ? undefined : under}
          />
        </div>
      </div>
      <aside className="tune-side">
        <Group justify="space-between">
          <Text fw={600}>{t('tune.text')}</Text>
          {trouble > 0 ? (
            <Badge color="red" variant="light">
              {t('tune.errors', { count: trouble })}
            </Badge>
          ) : saved && !unstored ? (
            <Badge color="plum" variant="light">
              {t('tune.saved')}
            </Badge>
          ) : null}
        </Group>
        <Harmonise tune={tune} text={text} spans={spans} onText={edit} />
        <AbcEditor
          text={text}
          label={t('tune.textLabel')}
          problems={problems}
          words={words}
          onText={edit}
          handle={editor}
        />
        <Text fw={600} size="sm">
          {t('tune.problems')}
        </Text>
        {aligned.fresh + aligned.gone > 0 ? (
          <Text size="sm" data-testid="aligned">
            {t('tune.aligned', { ...aligned })}
          </Text>
        ) : null}
        {problems.length === 0 ? (
          <Text size="sm">{t('tune.noProblems')}</Text>
        ) : (
          <ul className="problems" data-testid="problems">
            {problems.map((p, i) => (
              <li key={i} className={p.severity}>
                <button onClick={() => editor.current?.goTo(p.line, p.column)}>
                  <strong>{t('tune.line', { line: p.line })}</strong> {problemWords(t, p).what};{' '}
                  <span style={{ color: 'var(--ink-soft)' }}>{problemWords(t, p).taken}</span>
                </button>
              </li>
            ))}
          </ul>
        )}
        <Departures tune={tune} onSpot={setSpot} />
      </aside>
    </div>
  )
}

/** Puts the text cursor on the note that was clicked on the sheet. */
function goToNote(
  tune: TuneDoc,
  text: string,
  spans: readonly AbcSpan[],
  spot: SheetPosition,
  editor: AbcEditorHandle | null,
): void {
  const measure = tune.measures[spot.measure]!
  const event = tune.events.find(
    (e) => e.voice === 0 && e.pos.measure === measure.id && e.pos.tick === spot.tick,
  )
  const span = spans.find((s) => s.target === event?.id)
  if (!span || !editor) return
  const before = text.slice(0, span.from)
  const line = before.split('\n').length
  editor.goTo(line, span.from - before.lastIndexOf('\n'))
}
