import { Button, Switch } from '@mantine/core'
import type { ExpectedNote, NoteHeard, TakeReading } from '@velvet-porch/core/input/audio'
import { countAt } from '@velvet-porch/core/music'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { writtenSpot } from '../../../score/playback/usePlaying.ts'
import type { SheetModel } from '../../../score/sheet/sheetModel.ts'
import css from './take.module.css'

/** Milliseconds around its time in which a note is in time. Common practice, no source. */
const IN_TIME_MS = 35

interface Props {
  readonly reading: TakeReading
  readonly expected: readonly ExpectedNote[]
  readonly model: SheetModel
  readonly onClean: () => void
}

/** What was heard of a take, note by note. */
export function TakeHeard({ reading, expected, model, onClean }: Props) {
  const { t } = useTranslation()
  const [all, setAll] = useState(false)
  const [counted, setCounted] = useState(false)
  if (!reading.followed)
    return (
      <p role="status" data-testid="take-heard">
        {t('practise.take.notFollowed')}
      </p>
    )
  const { notes } = reading
  const heard = notes.filter((n) => n.verdict === 'heard').length
  const timing = (ms: number | undefined) =>
    ms === undefined
      ? ''
      : Math.abs(ms) <= IN_TIME_MS
        ? t('practise.take.inTime')
        : t(ms > 0 ? 'practise.take.late' : 'practise.take.early', { ms: Math.abs(ms) })
  const needsALook = ({ verdict, lateMs = 0 }: NoteHeard) =>
    verdict !== 'heard' || Math.abs(lateMs) > IN_TIME_MS
  const rows = expected.flatMap((note, i) => {
    const own = notes[i]!
    return all || needsALook(own) ? [{ i, own, place: placeOf(model, note) }] : []
  })
  return (
    <section ref={intoView} data-testid="take-heard" aria-label={t('practise.take.heardTitle')}>
      <p role="status">{t('practise.take.heard', { heard, count: notes.length })}</p>
      {heard === notes.length ? (
        <Button
          size="compact-sm"
          variant="default"
          disabled={counted}
          onClick={() => {
            setCounted(true)
            onClean()
          }}
        >
          {t('practise.take.countClean')}
        </Button>
      ) : null}
      <Switch
        size="xs"
        my={6}
        label={t('practise.take.all')}
        checked={all}
        onChange={(e) => setAll(e.currentTarget.checked)}
      />
      {rows.length > 0 ? (
        <table className={css['take-notes']}>
          <thead>
            <tr>
              <th>{t('practise.take.note')}</th>
              <th>{t('practise.take.verdict')}</th>
              <th>{t('practise.take.time')}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ i, own, place }) => (
              <tr key={i} data-verdict={own.verdict}>
                <td>{t('practise.take.where', place)}</td>
                <td>
                  {own.verdict === 'otherFret'
                    ? t('practise.take.otherFret', { fret: place.fret + (own.fretsOff ?? 0) })
                    : t(own.verdict === 'heard' ? 'practise.take.wasHeard' : 'practise.take.unclear')}
                </td>
                <td>{timing(own.lateMs)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </section>
  )
}

/** What was heard stands under what was asked for: it is shown as soon as it is there. */
const intoView = (section: HTMLElement | null) => section?.scrollIntoView({ block: 'nearest' })

/** Where on the page an expected note stands. */
function placeOf(model: SheetModel, { at, string, fret }: ExpectedNote) {
  const spot = writtenSpot(model, at)
  const measure = spot && model.tune.measures[spot.measure]
  return {
    number: spot ? (model.numbers[spot.measure] ?? 0) : 0,
    count: measure ? (countAt(measure.metre, spot.tick) ?? '–') : '–',
    string,
    fret,
  }
}
