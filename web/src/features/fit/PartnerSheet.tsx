import { measureNumbers, sungIn, type TuneDoc } from '@velvet-porch/core/document'
import { partnerParts, type FitOption, type Partner } from '@velvet-porch/core/arrange'
import { groupBy } from 'es-toolkit'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { Printable } from '../../ui/Printable.tsx'
import css from './PartnerSheet.module.css'

/** What everybody in the room reads: shapes, chords as they sound, transposed parts. */
export function PartnerSheet({
  tune,
  option,
  partners,
}: {
  tune: TuneDoc
  option: FitOption
  partners: readonly Partner[]
}) {
  const { t } = useTranslation()
  const names = useNames()
  const parts = useMemo(
    () => partnerParts(tune, option.transposed, option.choice.capo, partners),
    [tune, option, partners],
  )
  const numbers = useMemo(() => measureNumbers(tune.measures), [tune])
  const words = useMemo(() => {
    const own = groupBy(sungIn(tune), (s) => s.measure)
    return tune.measures.map((m) => (own[m.id] ?? []).map((s) => s.verses[0]).join(' '))
  }, [tune])
  return (
    <div className={css['partner-sheet']} data-testid="partners">
      {parts.map((part) => {
        const byMeasure = tune.measures.map((_, m) => part.chords.filter((c) => c.measure === m))
        return (
          <section key={part.partner}>
            <Printable title={tune.title} note={t(`fit.partner.${part.partner}`)} label={t('fit.printPart')}>
              <div className={css.part}>
                <h3>
                  {t(`fit.partner.${part.partner}`)}
                  <small>
                    {names.key(part.key)}
                    {part.capo > 0 ? ` · ${t('arrange.capoAt', { capo: part.capo })}` : ''}
                    {part.written > 0 ? ` · ${t('fit.writtenHigher', { count: part.written })}` : ''}
                  </small>
                </h3>
                <ol>
                  {byMeasure.map((chords, m) => (
                    <li key={m} aria-label={t('sheet.measure', { number: numbers[m]! })}>
                      {chords.length === 0 ? '·' : chords.map((c) => names.chord(c.chord)).join(' ')}
                      {words[m] ? <small>{words[m]}</small> : null}
                    </li>
                  ))}
                </ol>
                {part.notes.length > 0 ? (
                  <p className="soft">
                    {t('fit.melodyOf', {
                      notes: part.notes
                        .slice(0, 16)
                        .map((n) => names.note(n.pitch))
                        .join(' '),
                    })}
                  </p>
                ) : null}
              </div>
            </Printable>
          </section>
        )
      })}
    </div>
  )
}
