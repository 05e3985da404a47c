import { present } from '@velvet-porch/core/invariant'
import { Button, SegmentedControl, Select } from '@mantine/core'
import { IconMinimize } from '@tabler/icons-react'
import { hertz } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { TEACH_LAYERS, type Lesson } from '@velvet-porch/core/lesson'
import { useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { NeckLegend } from '../arrange/HandText.tsx'
import { Working } from '../../ui/Working.tsx'
import { Neck } from '../../score/neck/Neck.tsx'
import { player } from '../../score/playback/player.ts'
import { Sheet } from '../../score/sheet/Sheet.tsx'
import { NO_LAYERS, type TabLayers } from '../../score/sheet/TabLayer.tsx'
import { DrillsView } from './DrillsView.tsx'
import { LessonFoot } from './LessonFoot.tsx'
import { LessonHead } from './LessonHead.tsx'
import { LogView } from './LogView.tsx'
import { Pieces } from './Pieces.tsx'
import { PieceView } from './PieceView.tsx'
import { PlanView } from './PlanView.tsx'
import { Script } from './Script.tsx'
import { StepView } from './StepView.tsx'
import { useLesson, VIEWS, type ShownLesson } from './useLesson.ts'
import lessonCss from './lesson.module.css'
import css from './LessonView.module.css'

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true, picking: true, counts: true, remarks: true }

const ONE_LINE = { runsOn: true }

/** Views that go along the sheet; the others take its room. */
const ON_SHEET: ReadonlySet<(typeof VIEWS)[number]> = new Set(['step', 'piece', 'script'])

/** One moment at a time: its count and its words large, the hand on the neck, the sheet beneath; or the whole as a script. */
export function LessonView({ tune, written }: { tune: TuneDoc; written: ArrangementDoc }) {
  const { t } = useTranslation()
  const root = useRef<HTMLDivElement>(null)
  const shown = useLesson(tune, written)
  const { student, own, instead, setInstead, layer, setLayer, model, lesson, pieces, piece } = shown
  const { view, setView, step, position, marked, loop, setLoop, hand, plucked } = shown
  const { toggle, cursor, go, toMeasure, beats } = shown
  if (!lesson) return <Working />
  if (!step)
    return (
      <div className={lessonCss['teach-nothing']}>
        <p>{t('teach.empty')}</p>
        {layer === 'whole' ? null : (
          <Button onClick={() => setLayer('whole')}>{t('teach.layers.whole')}</Button>
        )}
      </div>
    )
  return (
    <div className={css.teach} data-view={view} ref={root}>
      <LessonHead
        title={tune.title}
        student={student}
        own={own}
        instead={instead}
        onWritten={() => setInstead(undefined)}
        onFull={() => void root.current?.requestFullscreen()}
      />
      <Pieces
        effort={lesson.effort}
        pieces={pieces}
        numbers={model.numbers}
        goalBpm={lesson.goalBpm}
        at={piece}
        onPiece={(p) => toMeasure(p.from, p.tick)}
      />
      <div className={css['teach-views']}>
        <SegmentedControl
          size="xs"
          aria-label={t('teach.view')}
          value={view}
          onChange={(v) => setView(v)}
          data={VIEWS.map((value) => ({ value, label: t(`teach.views.${value}`) }))}
        />
        <Select
          className={css['teach-layer']}
          size="xs"
          aria-label={t('teach.layer')}
          value={layer}
          onChange={(v) => v && setLayer(v)}
          data={TEACH_LAYERS.map((value) => ({ value, label: t(`teach.layers.${value}`) }))}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false, width: 190, position: 'bottom-end' }}
        />
      </div>
      <Button
        className={css['teach-leave']}
        size="compact-sm"
        variant="default"
        leftSection={<IconMinimize size={15} />}
        onClick={() => void document.exitFullscreen()}
      >
        {t('teach.leaveFull')}
      </Button>
      <LessonBody shown={shown} lesson={lesson} />
      <aside className={css['teach-neck']}>
        {model.setup ? (
          <Neck
            setup={model.setup}
            hand={hand}
            plucked={plucked}
            onHear={(string, fret) =>
              void player.pluck(string, hertz(pitchAt(present(model.setup), { string, fret })))
            }
          />
        ) : null}
        <div className={css['teach-legend']}>
          <NeckLegend />
        </div>
      </aside>
      {ON_SHEET.has(view) ? (
        <div className={css['teach-sheet']}>
          <Sheet
            model={model}
            layers={LAYERS}
            selection={{ position, onPosition: shown.toSheet, marked }}
            cursor={cursor}
            view={ONE_LINE}
          />
        </div>
      ) : null}
      <LessonFoot
        first={shown.first}
        last={shown.last}
        onGo={go}
        onPlay={toggle}
        loop={loop}
        onLoop={setLoop}
        bounded={beats !== undefined}
      />
    </div>
  )
}

/** The view that is chosen. */
function LessonBody({ shown, lesson }: { shown: ShownLesson; lesson: Lesson }) {
  const { view, setView, index, setIndex, plan = lesson, piece, notes, taught, student } = shown
  const { instead, setInstead, log, toMeasure, toLearningStep, loopAt } = shown
  switch (view) {
    case 'script':
      return (
        <Script
          script={lesson.script}
          index={index}
          onStep={(i) => {
            setIndex(i)
            setView('step')
          }}
        />
      )
    case 'piece':
      if (!piece) break
      return (
        <PieceView
          lesson={plan}
          piece={piece}
          notes={notes}
          taught={taught}
          student={student}
          instead={instead}
          onInstead={setInstead}
          onTempo={loopAt}
        />
      )
    case 'drills':
      return <DrillsView lesson={plan} onPosition={(s) => toMeasure(s.measure, s.tick)} />
    case 'plan':
      return <PlanView key={student?.id ?? ''} lesson={plan} onStep={toLearningStep} />
    case 'log':
      return <LogView lesson={plan} log={log} student={student} />
    case 'step':
      break
  }
  return <StepView lesson={lesson} index={index} beats={shown.beats} onBounds={shown.changeBounds} />
}
