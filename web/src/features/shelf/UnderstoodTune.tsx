import { Checkbox, Text } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import { useTranslation } from 'react-i18next'
import { problemText } from '../../texts/say.ts'
import { useNames } from '../../ui/names/useNames.ts'
import type { Choices } from './intake.ts'
import { ScoreQuestions } from './ScoreQuestions.tsx'
import { SongQuestions } from './SongQuestions.tsx'
import css from './IntakeDialog.module.css'

/** Doubts that are listed; how many more there are is said. */
const LISTED = 6

interface Props {
  readonly understood: TuneUnderstood
  readonly file: string | undefined
  readonly taken: boolean
  readonly chosen: Choices
  /** Takes it or leaves it; absent where there is nothing to choose from. */
  readonly onTake: (() => void) | undefined
  readonly onChoose: (change: Choices) => void
}

/** One tune of a text: what it is in a line, what is doubtful in it, and what must be asked. */
export function UnderstoodTune({ understood, file, taken, chosen, onTake, onChoose }: Props) {
  const { t } = useTranslation()
  const { tune, song, capoNames, arrangement, problems, voices, quantised } = understood
  const facts = useFacts(tune, arrangement?.setup.capo[0] ?? song?.capo ?? 0)
  if (!tune) return null
  const listed = problems.filter((p) => p.severity !== 'note')
  const shown = [...listed, ...problems.filter((p) => p.severity === 'note')].slice(0, LISTED)
  return (
    <div className={css.tune} {...(taken ? {} : { 'data-left': true })}>
      {onTake ? (
        <Checkbox
          checked={taken}
          onChange={onTake}
          label={<b>{tune.title}</b>}
          aria-label={t('shelf.takeTitle', { title: tune.title })}
        />
      ) : (
        <b>{tune.title}</b>
      )}
      <Text size="sm">{[file, ...facts].filter(Boolean).join(' · ')}</Text>
      {song || capoNames ? (
        <SongQuestions
          tune={tune}
          song={song}
          capoNames={capoNames}
          onChoose={(change) => onChoose({ song: change })}
        />
      ) : null}
      {voices || quantised ? (
        <ScoreQuestions
          voices={voices}
          quantised={quantised}
          chosen={chosen.score ?? {}}
          onChoose={(change) => onChoose({ score: change })}
        />
      ) : null}
      {shown.length > 0 ? (
        <ul className={css.doubts}>
          {shown.map((p, i) => (
            <li key={i} data-severity={p.severity}>
              {problemText(t, p)}
            </li>
          ))}
          {problems.length > shown.length ? (
            <li data-severity="note">{t('intake.more', { count: problems.length - shown.length })}</li>
          ) : null}
        </ul>
      ) : null}
    </div>
  )
}

/** What a tune is, in a few words. */
function useFacts(tune: TuneDoc | undefined, capo: number): string[] {
  const { t } = useTranslation()
  const names = useNames()
  if (!tune) return []
  const first = tune.measures[0]!
  const notes = tune.events.filter((e) => e.pitch).length
  const lines = tune.song?.lines.filter((l) => l.kind === 'sung' && l.text !== '').length ?? 0
  const tempo = tune.tempos[0]!
  return [
    t('intake.measures', { count: tune.measures.length }),
    ...(notes > 0 ? [t('intake.notes', { count: notes })] : []),
    t('intake.chords', { count: tune.chords.length }),
    ...(lines > 0 ? [t('intake.lines', { count: lines })] : []),
    names.key(first.key),
    `${first.metre.num}/${first.metre.den}`,
    ...(capo > 0 ? [t('intake.capo', { capo })] : []),
    ...(tempo.stated ? [`♩ = ${Math.round(tempo.bpm)}`] : []),
  ]
}
