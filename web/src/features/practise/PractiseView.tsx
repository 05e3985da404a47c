import { Alert, Button, Group, Text } from '@mantine/core'
import { IconCheck, IconClock, IconPlayerPauseFilled, IconPlayerPlayFilled, IconX } from '@tabler/icons-react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { hertz } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import { cautionWords, recipeIn, temposWithin, type LogEntry } from '@velvet-porch/core/lesson'
import { useMemo, useState, useSyncExternalStore, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Working } from '../../ui/Working.tsx'
import { Neck } from '../../score/neck/Neck.tsx'
import { player } from '../../score/playback/player.ts'
import { Sheet } from '../../score/sheet/Sheet.tsx'
import { NO_LAYERS, type TabLayers } from '../../score/sheet/TabLayer.tsx'
import { useActions } from '../../state/actions.ts'
import { TakePanel } from './take/TakePanel.tsx'
import { PieceDrills } from './PieceDrills.tsx'
import { RecordingPanel } from './RecordingPanel.tsx'
import { StudentMenu } from '../lesson/StudentMenu.tsx'
import { useClimb } from './useClimb.ts'
import { useElapsed } from './useElapsed.ts'
import { useHandAtCursor } from './useHandAtCursor.ts'
import { useRecording } from './useRecording.ts'
import { useSharedCursor } from './useSharedCursor.ts'
import { usePractice, usePractised, type Practice, type Practised } from './usePractice.ts'
import css from './practise.module.css'

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true, picking: true, counts: true }

const ONE_LINE = { runsOn: true }

/** Minutes of playing after which the hands are to rest. Common practice, no source. */
const REST_EVERY = 12

/** Today's list, the piece in a loop with the hand on the neck, and the tempo that rises when it is clean. */
export function PractiseView({ tune, written }: { tune: TuneDoc; written: ArrangementDoc }) {
  const practised = usePractised(tune, written)
  return practised ? <PractiseLesson practised={practised} /> : <Working />
}

function PractiseLesson({ practised }: { practised: Practised }) {
  const { t } = useTranslation()
  const practice = usePractice(practised)
  const { tune } = practised.lesson
  const { lesson, model, piece, looped, student, own } = practice
  const [running, setRunning] = useState(false)
  const [noted, setNoted] = useState<LogEntry>()
  const { seconds } = useElapsed(running)
  const hand = useHandAtCursor(model, looped?.from)
  const marked = useMemo(() => looped && { from: looped.from.measure, to: looped.to.measure }, [looped])
  const { cursor, follow } = useSharedCursor(practice.cursor)
  const recording = useRecording(model, marked, follow)
  const [said] = cautionWords(lesson)
  const minutes = Math.floor(seconds / 60)
  return (
    <div className={css['practise']}>
      <header className="bench-title">
        <h1>{tune.title}</h1>
        <Group gap={8} ml="auto" wrap="nowrap">
          <Button
            size="compact-sm"
            variant={running ? 'light' : 'default'}
            leftSection={<IconClock size={15} />}
            onClick={() => setRunning(!running)}
          >
            {t(running ? 'practise.clockRuns' : 'practise.clock', { time: clockText(seconds) })}
          </Button>
          <StudentMenu student={student} own={own} />
        </Group>
      </header>
      <TodayList practice={practice}>
        <RecordingPanel recording={recording} model={model} />
      </TodayList>
      <section
        className={css['practise-piece']}
        aria-labelledby="practise-piece"
        data-testid="practise-piece"
      >
        {piece ? (
          <Climbing
            key={`${student?.id ?? ''} ${piece.number}`}
            practice={practice}
            tempos={temposWithin(recipeIn(lesson, piece))}
            onBegin={() => setRunning(true)}
            onWritten={(entry) => {
              setNoted(entry)
              practice.choose(undefined)
            }}
          />
        ) : (
          <p>{t('practise.nothing')}</p>
        )}
        {noted ? (
          <p role="status" data-testid="written" className={css['practise-written']}>
            {t('practise.written', {
              piece: practice.nameOf(noted.piece),
              bpm: noted.bpm,
              clean: noted.clean,
            })}
          </p>
        ) : null}
        {running && minutes >= REST_EVERY && minutes % REST_EVERY < 2 ? (
          <Alert color="lamp" mt="sm">
            {t('practise.rest', { minutes })}
          </Alert>
        ) : null}
        <Text size="sm" c="dimmed" mt="sm">
          {seconds < 60 ? t('practise.warmUp') : said}
        </Text>
      </section>
      <aside className={css['practise-neck']}>
        {model.setup && hand ? (
          <Neck
            setup={model.setup}
            hand={hand}
            plucked={[]}
            onHear={(string, fret) => {
              const { setup } = model
              if (setup) void player.pluck(string, hertz(pitchAt(setup, { string, fret })))
            }}
          />
        ) : null}
      </aside>
      <div className={css['practise-sheet']}>
        <Sheet
          model={model}
          layers={LAYERS}
          selection={{ position: looped?.from, onPosition: () => undefined, marked }}
          cursor={cursor}
          view={ONE_LINE}
        />
      </div>
    </div>
  )
}

const clockText = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`

/** What is to be played again and what is new. */
function TodayList({ practice, children }: { practice: Practice; children: ReactNode }) {
  const { t } = useTranslation()
  const { list, piece, nameOf, choose, lesson, study } = practice
  return (
    <section className={css['practise-today']} aria-labelledby="practise-today">
      <h2 id="practise-today">{t('practise.today')}</h2>
      {list.length === 0 ? <p className="soft">{t('practise.nothingDue')}</p> : null}
      <ol data-testid="practise-today">
        {list.map((item) => (
          <li key={item.piece}>
            <button
              type="button"
              aria-pressed={item.piece === piece?.number}
              onClick={() => choose(item.piece)}
            >
              <span className={css['practise-why']}>{t(`studio.why.${item.why}`)}</span> {nameOf(item.piece)}{' '}
              <span className="soft">{t('studio.min', { minutes: item.minutes })}</span>
            </button>
          </li>
        ))}
      </ol>
      <Text size="sm" c="dimmed">
        {t('studio.masteredOf', { percent: Math.round(100 * study.mastered) })}
      </Text>
      {lesson.spots.length > 0 ? (
        <Link to={`/tunes/${lesson.tune.id}/teach`} className={css['practise-drills']}>
          {t('practise.drills')}
        </Link>
      ) : null}
      {children}
    </section>
  )
}

/** One piece on its way up: the tempo of now, how many clean ones are needed, one key for how it went. */
function Climbing({
  practice,
  tempos,
  onBegin,
  onWritten,
}: {
  practice: Practice
  tempos: readonly number[]
  onBegin: () => void
  /** What was written down; the next piece of the list comes then. */
  onWritten: (entry: LogEntry) => void
}) {
  const { t } = useTranslation()
  const { nameOf, piece, toggle } = practice
  const { playing } = useSyncExternalStore(player.subscribe, player.snapshot)
  const climb = useClimb(practice, tempos, onWritten)
  const { ladder, needed, isDone, went, write, canWrite } = climb
  const number = piece?.number ?? 0
  const hear = useMemo(
    () => () => {
      onBegin()
      toggle()
    },
    [onBegin, toggle],
  )
  useActions(
    useMemo(
      () => [
        { id: 'practise.hear', label: t('practise.hear'), keys: 'Space', run: hear },
        { id: 'practise.clean', label: t('practise.clean'), keys: 'C', run: () => went(true) },
        { id: 'practise.missed', label: t('practise.missed'), keys: 'X', run: () => went(false) },
      ],
      [t, hear, went],
    ),
  )
  return (
    <>
      <h2 id="practise-piece">{nameOf(number)}</h2>
      <ol className={css['practise-ladder']} aria-label={t('practise.ladder')} data-testid="ladder">
        {ladder.tempos.map((bpm, i) => (
          <li
            key={bpm}
            aria-current={i === ladder.at ? 'step' : undefined}
            data-reached={(ladder.reached ?? 0) >= bpm || undefined}
          >
            ♩ = {bpm}
          </li>
        ))}
      </ol>
      <p role="status" data-testid="climb-words">
        {isDone
          ? t('practise.done')
          : t('practise.needed', { clean: ladder.clean, needed, bpm: ladder.tempos[ladder.at] ?? 0 })}
      </p>
      <Group gap="sm">
        <Button
          size="lg"
          variant="default"
          leftSection={playing ? <IconPlayerPauseFilled size={20} /> : <IconPlayerPlayFilled size={20} />}
          onClick={hear}
        >
          {t(playing ? 'practise.pause' : 'practise.hear')}
        </Button>
        <Button size="lg" leftSection={<IconCheck size={20} />} onClick={() => went(true)}>
          {t('practise.clean')} <kbd className={css['practise-key']}>C</kbd>
        </Button>
        <Button size="lg" variant="default" leftSection={<IconX size={20} />} onClick={() => went(false)}>
          {t('practise.missed')} <kbd className={css['practise-key']}>X</kbd>
        </Button>
        <Button variant="subtle" disabled={!canWrite} onClick={() => void write()}>
          {t('practise.write')}
        </Button>
      </Group>
      {piece ? <PieceDrills lesson={practice.lesson} piece={piece} /> : null}
      <TakePanel model={practice.model} onClean={() => went(true)} />
    </>
  )
}
