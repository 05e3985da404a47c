import { hertz, mod12 } from '@velvet-porch/core/music'
import { INSTRUMENTS, retuning } from '@velvet-porch/core/instrument'
import { nameShape } from '@velvet-porch/core/chords'
import { useTranslation } from 'react-i18next'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { player } from '../../score/playback/player.ts'
import neckCss from './neck.module.css'

/** Each string's pitch, its interval to the next, and the way there from the usual tuning. */
export function TuningCard({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const { setup, kind } = instrument
  const { usual } = INSTRUMENTS[kind]
  const turns = retuning(kind, usual, setup.tuning)
  const open = nameShape(
    { ...setup, capo: setup.tuning.map(() => 0) },
    setup.tuning.map(() => 0),
  )[0]
  const strings = setup.tuning.map((_, i) => setup.tuning.length - i)
  return (
    <section className={neckCss['card-sheet']} aria-label={t('card.name.tuning')}>
      <table className={neckCss['card-table']} data-testid="tuning-table">
        <thead>
          <tr>
            <th>{t('shapes.column.string')}</th>
            <th>{t('card.tuning.pitch')}</th>
            <th>{t('card.tuning.hertz')}</th>
            <th>{t('card.tuning.next')}</th>
            <th>{t('card.tuning.turn')}</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {strings.map((string) => {
            const midi = setup.tuning[string - 1]!
            const above = setup.tuning[string - 2]
            const turn = turns.find((x) => x.string === string)
            return (
              <tr key={string}>
                <th scope="row">{string}</th>
                <td>{names.pitch(midi)}</td>
                <td>{hertz(midi).toFixed(1)}</td>
                <td>
                  {above === undefined
                    ? '–'
                    : t('card.tuning.interval', {
                        n: above - midi,
                        name: t(`interval.${mod12(Math.abs(above - midi)) as 0}`),
                      })}
                </td>
                <td>
                  {turn
                    ? t(turn.semitones > 0 ? 'card.tuning.up' : 'card.tuning.down', {
                        count: Math.abs(turn.semitones),
                        from: names.pitch(turn.from),
                      })
                    : t('card.tuning.stays')}
                  {turn?.careful ? ` ${t('card.tuning.careful')}` : ''}
                </td>
                <td>
                  <button
                    type="button"
                    className="plain"
                    onClick={() => void player.pluck(string, hertz(midi))}
                  >
                    {t('card.tuning.hear', { string })}
                  </button>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {open ? <p>{t('card.tuning.open', { chord: names.chord(open.sounding) })}</p> : null}
      {setup.instrument.doubling > 1 ? <p>{t('card.tuning.doubled')}</p> : null}
      {turns.some((x) => x.careful) ? <p>{t('card.tuning.caution')}</p> : null}
      {turns.length > 0 ? <p className="soft">{t('card.tuning.again')}</p> : null}
    </section>
  )
}
