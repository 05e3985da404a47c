import { Alert, Button } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { useCurrentPlayer } from '../../../state/players.ts'
import { say } from '../../../texts/say.ts'
import { errorWords } from '../../../workers/errorWords.ts'
import { Act, Notice } from '../Notice.tsx'
import { ossiaWords } from '../ossiaWords.ts'
import { TasteNotices } from '../taste/TasteNotices.tsx'
import { useLeavingOut } from '../useAsPlayed.ts'
import { useBench, useBenchPage, useSetBench } from './BenchContext.ts'

/** What has to be said over the sheet: which version is looked at, what failed, what is no longer up to date. */
export function BenchNotices() {
  return (
    <>
      <ShownVersion />
      <FailedNotice />
      <StaleNotice />
      <TasteNotices />
    </>
  )
}

/** Which version of the arrangement the sheet shows, where it is not the one that stands. */
function ShownVersion() {
  const { t } = useTranslation()
  const { doc, signs, previous, changes, own } = useBenchPage()
  const comparing = useBench((s) => s.comparing)
  const asWritten = useBench((s) => s.asWritten)
  const ossia = useBench((s) => s.ossia)
  const onCompare = useSetBench('comparing')
  const onAsWritten = useSetBench('asWritten')
  const onOssia = useSetBench('ossia')
  const [leaves, setLeaves] = useLeavingOut()
  const hand = useCurrentPlayer()
  const kept = ossia === undefined ? undefined : doc?.variants.find((v) => v.id === ossia)
  return (
    <>
      {comparing && previous !== undefined ? (
        <Notice testId="comparing" text={t('arrange.compare.shown', { label: previous, count: changes })}>
          <Act onClick={() => onCompare(false)}>{t('arrange.compare.back')}</Act>
        </Notice>
      ) : null}
      {leaves && doc ? (
        <Notice
          testId="left-out"
          text={t('view.leftOut', { name: doc.setup.player.name || t('instrument.adult') })}
        >
          <Act onClick={() => setLeaves(false)}>{t('view.putIn')}</Act>
        </Notice>
      ) : null}
      {own.length > 0 && doc ? (
        <Notice
          testId="own-measures"
          text={t(asWritten ? 'easier.aside' : 'easier.own', {
            name: hand.name || t('instrument.adult'),
            what: own.map((v) => ossiaWords(t, v, signs)).join('; '),
          })}
        >
          <Act onClick={() => onAsWritten(!asWritten)}>
            {t(asWritten ? 'easier.asOwn' : 'easier.asWritten')}
          </Act>
        </Notice>
      ) : null}
      {kept ? (
        <Notice testId="ossia-shown" text={t('easier.shown', { what: kept.name })}>
          <Act onClick={() => onOssia(undefined)}>{t('easier.hide')}</Act>
        </Notice>
      ) : null}
    </>
  )
}

/** Why what was asked for could not be arranged, with the way out. */
function FailedNotice() {
  const { t } = useTranslation()
  const { arranger } = useBenchPage()
  const { failed } = arranger
  if (!failed) return null
  return (
    <Alert
      color="red"
      mt="xs"
      title={t('arrange.failed')}
      withCloseButton
      closeButtonLabel={t('arrange.dismiss')}
      onClose={arranger.forget}
    >
      {failed.why.kind === 'failed' ? say(t, failed.why.says) : errorWords(t, failed.why.error)}{' '}
      {failed.locks.length > 0 ? (
        <Button
          size="compact-sm"
          ml="sm"
          onClick={() => {
            const { change, locks, label } = failed
            void arranger.choose(label, (now) => {
              const next = { ...now, ...change(now) }
              return { ...next, locks: next.locks.filter((l) => !locks.includes(l.id)) }
            })
          }}
        >
          {t('arrange.withoutThem')}
        </Button>
      ) : (
        t('arrange.tryLower')
      )}
    </Alert>
  )
}

/** Says that the arrangement answers another state of the tune, or was made for another hand. */
function StaleNotice() {
  const { t } = useTranslation()
  const { doc, model, marked, arranger } = useBenchPage()
  if (!doc || arranger.atWork) return null
  return (
    <>
      {arranger.stale ? (
        <Notice text={t('arrange.stale')}>
          <Act onClick={() => void arranger.again()}>{t('arrange.again')}</Act>
          {marked ? (
            <Act plain onClick={() => void arranger.rearrange(marked.from, marked.to)}>
              {t('arrange.selection', {
                count: marked.to - marked.from + 1,
                from: model.numbers[marked.from]!,
                to: model.numbers[marked.to]!,
              })}
            </Act>
          ) : null}
          <Act plain onClick={() => void arranger.accept()}>
            {t('arrange.accept')}
          </Act>
        </Notice>
      ) : null}
      {arranger.otherHand && !arranger.stale ? (
        <Notice text={t('arrange.otherHand', { name: arranger.otherHand.name || t('instrument.adult') })}>
          <Act onClick={() => void arranger.again()}>{t('arrange.again')}</Act>
        </Notice>
      ) : null}
    </>
  )
}
