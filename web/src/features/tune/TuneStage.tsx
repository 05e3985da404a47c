import { present } from '@velvet-porch/core/invariant'
import { Text } from '@mantine/core'
import type { AbcSpan, TuneDoc } from '@velvet-porch/core/document'
import { Suspense, useCallback, useDeferredValue, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams, useSearchParams } from 'react-router'
import { Sheet } from '../../score/sheet/Sheet.tsx'
import type { MarkedMeasures } from '../../score/sheet/selection.ts'
import { NO_LAYERS } from '../../score/sheet/TabLayer.tsx'
import { sheetMaker, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import { useTune } from '../../state/useTune.ts'
import type { Cell } from '../../score/sheet/cells.ts'
import { bySteps, eventAt, pitchAtHeight } from '../../score/edit/staffPitch.ts'
import { useWriting } from '../../score/edit/useWriting.ts'
import type { AbcEditorHandle } from './AbcEditor.tsx'
import { brought } from '../../ui/brought.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { TextNotices } from './TextNotices.tsx'
import { useAbcText } from './useAbcText.ts'
import { useSystemText } from './useSystemText.tsx'
import { useTuneActions } from './useTuneActions.ts'
import { TuneHead } from './TuneHead.tsx'
import { TextSide } from './TextSide.tsx'
import { SongSide } from './song/SongSide.tsx'
import css from './TuneStage.module.css'

const StaffWriteBar = brought(async () => (await import('../../score/edit/StaffWriteBar.tsx')).StaffWriteBar)

/** The tune as read: the staff, its ABC beside it, and what the reader says about it. */
export function TuneStage() {
  const opened = useTune(present(useParams().id))
  return <TuneGate opened={opened}>{(tune) => <TuneBench key={tune.id} tune={tune} />}</TuneGate>
}

/** Where the pen begins. */
const FIRST_BEAT: Cell = { measure: 0, tick: 0, string: 0 }

function TuneBench({ tune }: { tune: TuneDoc }) {
  const { t } = useTranslation()
  const abc = useAbcText(tune, t('tune.text'))
  const { text, readable, spans, saved } = abc
  const [modelOf] = useState(sheetMaker)
  const [position, setPosition] = useState<SheetPosition>()
  const [marked, setMarked] = useState<MarkedMeasures>()
  const [search] = useSearchParams()
  const writing = useWriting(tune.id, search.has('write'), FIRST_BEAT)
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
      setPosition({ measure: cell.measure, tick: cell.tick })
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
  const under = useSystemText(shown, abc, model.numbers)
  useTuneActions(tune.id, toggle)
  const abcSide = <TextSide tune={tune} abc={abc} editor={editor} onPosition={setPosition} />
  return (
    <div className={css['tune-stage']}>
      <div style={{ overflow: 'auto' }}>
        <div className="bench-head">
          <TuneHead
            tune={tune}
            model={model}
            writing={pen !== undefined}
            onWrite={readable ? toggle : undefined}
          />
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
            selection={{
              position: pen ? pen.cell : position,
              marked,
              onMark: setMarked,
              onPosition: (s) => {
                setPosition(s)
                goToNote(tune, text, spans, s, editor.current)
              },
            }}
            writing={sheetWriting}
            under={pen ? undefined : under}
          />
        </div>
      </div>
      {tune.song ? <SongSide tune={tune} run={writing.run} abc={abcSide} /> : abcSide}
    </div>
  )
}

/** Puts the text cursor on the note that was clicked on the sheet. */
function goToNote(
  tune: TuneDoc,
  text: string,
  spans: readonly AbcSpan[],
  position: SheetPosition,
  editor: AbcEditorHandle | null,
): void {
  const measure = tune.measures[position.measure]!
  const event = tune.events.find(
    (e) => e.voice === 0 && e.pos.measure === measure.id && e.pos.tick === position.tick,
  )
  const span = spans.find((s) => s.target === event?.id)
  if (!span || !editor) return
  const before = text.slice(0, span.from)
  const line = before.split('\n').length
  editor.goTo(line, span.from - before.lastIndexOf('\n'))
}
