import { hertz } from '@velvet-porch/core/music'
import { HARMONICS, harmonicsOf } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import type { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { LongNeck, type NeckMark } from '../../score/neck/LongNeck.tsx'
import { useNames } from '../../ui/names/useNames.ts'
import { player } from '../../score/playback/player.ts'
import neckCss from './neck.module.css'

/** Divisions that are shown on the neck: the ones that ring well. */
const SHOWN_PARTS = 5

/** Natural harmonics on every string: where to touch, what sounds, how far off the tempered pitch. */
export function HarmonicsMap({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const names = useNames()
  const { setup } = instrument
  const places = harmonicsOf(setup).filter((h) => h.parts <= SHOWN_PARTS && h.at < 12.5)
  const marks = places.map((h): NeckMark => ({
    string: h.string,
    fret: h.fret,
    at: h.at,
    label: names.pitch(h.midi).replace(/\d$/, ''),
    look: 'touch',
  }))
  const rows = HARMONICS.filter((h) => h.parts <= SHOWN_PARTS && h.at < 12.5)
  const strings = setup.tuning.map((_, i) => setup.tuning.length - i)
  return (
    <section className={neckCss['card-sheet']} aria-label={t('card.name.harmonics')}>
      <LongNeck setup={setup} marks={marks} upTo={12} label={t('card.harmonics.label')} />
      <table className={neckCss['card-table']} data-testid="harmonics-table">
        <thead>
          <tr>
            <th>{t('card.harmonics.touch')}</th>
            {strings.map((s) => (
              <th key={s}>{t('card.string', { string: s })}</th>
            ))}
            <th>{t('card.harmonics.cents')}</th>
            <th>{t('card.harmonics.also')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((h) => (
            <tr key={h.at}>
              <th scope="row">
                {Math.abs(h.at - h.fret) < 0.03
                  ? t('card.harmonics.at', { fret: h.fret })
                  : t(h.at < h.fret ? 'card.harmonics.before' : 'card.harmonics.behind', { fret: h.fret })}
              </th>
              {strings.map((s) => {
                const place = places.find((p) => p.string === s && p.at === h.at)
                return (
                  <td key={s}>
                    {place ? (
                      <button
                        type="button"
                        className="plain"
                        onClick={() => void player.pluck(s, hertz(place.midi + h.cents / 100))}
                      >
                        {names.pitch(place.midi)}
                      </button>
                    ) : (
                      '–'
                    )}
                  </td>
                )
              })}
              <td>{h.cents === 0 ? '0' : h.cents > 0 ? `+${h.cents}` : `−${-h.cents}`}</td>
              <td>
                {HARMONICS.filter((x) => x.parts === h.parts && x.at !== h.at && x.at < 20)
                  .map((x) => x.fret)
                  .join(', ') || '–'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft">{t('card.harmonics.hint')}</p>
    </section>
  )
}
