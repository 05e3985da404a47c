import { Alert, Button } from '@mantine/core'
import type { ArrangementDoc, Id, TuneDoc, Variant } from '@velvet-porch/core'
import { lazy, memo, Suspense } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../../score/sheet/Sheet.tsx'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { useCurrentPlayer } from '../../state/players.ts'
import type { Writing } from '../../score/edit/useWriting.ts'
import { ArrangeHead } from './ArrangeHead.tsx'
import { EffortRibbon } from './EffortRibbon.tsx'
import { GivenTab } from './GivenTab.tsx'
import { Act, Notice } from './Notice.tsx'
import { ossiaWords } from './ossiaWords.ts'
import { Pins } from './Pins.tsx'
import { useLeavingOut } from './useAsPlayed.ts'
import type { BenchArranger } from './useArranger.ts'
import { say } from '../../texts/say.ts'
import { errorWords } from '../../workers/errorWords.ts'

const TabWriteBar = lazy(async () => ({
  default: (await import('../../score/edit/TabWriteBar.tsx')).TabWriteBar,
}))

interface Props {
  readonly id: Id
  readonly tune: TuneDoc | undefined
  readonly doc: ArrangementDoc | null
  /** The page as it is shown. */
  readonly model: SheetModel
  /** The page in its signs, where it is shown written out. */
  readonly signs: SheetModel
  /** What is played where the page is shown written out. */
  readonly out: ArrangementDoc | undefined
  readonly arranger: BenchArranger
  readonly spot: SheetPosition | undefined
  readonly marked: MarkedMeasures | undefined
  /** The same, ahead of what is drawn. */
  readonly markedNow: () => MarkedMeasures | undefined
  readonly onSpot: (spot: SheetPosition) => void
  /** The last change of the arrangement, that it can be compared with. */
  readonly previous: string | undefined
  readonly comparing: boolean
  readonly onCompare: (on: boolean) => void
  /** Notes that the shown version has otherwise. */
  readonly changes: number
  readonly ossia: Id | undefined
  readonly onOssia: (ossia: Id | undefined) => void
  /** Other versions of measures that the hand in use plays throughout, and whether they are put aside. */
  readonly own: readonly Variant[]
  readonly asWritten: boolean
  readonly onAsWritten: (on: boolean) => void
  /** The version that is shown beside the bench's. */
  readonly beside: Id | undefined
  readonly onBeside: (version: Id | undefined) => void
  /** Writing by hand, where the sheet may be written on. */
  readonly writing: Writing | undefined
}

/** What stands over the sheet: the choices, what has to be said, the pen's tools, and effort. */
export const BenchHead = memo(function BenchHead(props: Props) {
  const { id, tune, doc, model, signs, out, arranger, spot, marked, markedNow, onSpot, writing } = props
  const { previous, comparing, onCompare, changes, ossia, onOssia, beside, onBeside } = props
  const { own, asWritten, onAsWritten } = props
  const { t } = useTranslation()
  const [leaves, setLeaves] = useLeavingOut()
  const hand = useCurrentPlayer()
  const kept = ossia === undefined ? undefined : doc?.variants.find((v) => v.id === ossia)
  return (
    <div className="bench-head">
      <ArrangeHead
        id={id}
        model={signs}
        doc={doc}
        arranger={arranger}
        spot={out ? undefined : spot}
        onSpot={out ? undefined : onSpot}
        previous={previous}
        writing={writing}
        comparing={comparing}
        onCompare={onCompare}
        beside={beside}
        onBeside={onBeside}
      />
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
      {arranger.failed ? (
        <Alert
          color="red"
          mt="xs"
          title={t('arrange.failed')}
          withCloseButton
          closeButtonLabel={t('arrange.dismiss')}
          onClose={arranger.forget}
        >
          {arranger.failed.why.kind === 'failed'
            ? say(t, arranger.failed.why.says)
            : errorWords(t, arranger.failed.why.error)}{' '}
          {arranger.failed.locks.length > 0 ? (
            <Button
              size="compact-sm"
              ml="sm"
              onClick={() => {
                const { change, locks, label } = arranger.failed!
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
      ) : null}
      {arranger.stale && !arranger.atWork && doc ? (
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
      {arranger.otherHand && !arranger.stale && !arranger.atWork && doc ? (
        <Notice text={t('arrange.otherHand', { name: arranger.otherHand.name || t('instrument.adult') })}>
          <Act onClick={() => void arranger.again()}>{t('arrange.again')}</Act>
        </Notice>
      ) : null}
      {doc && tune ? <GivenTab tune={tune} doc={doc} marked={marked} arranger={arranger} /> : null}
      {writing?.on && doc ? (
        <Suspense>
          <TabWriteBar
            model={model}
            doc={doc}
            writing={writing}
            marked={marked}
            markedNow={markedNow}
            onArrange={arranger.rearrange}
          />
        </Suspense>
      ) : null}
      {tune?.pins?.length ? <Pins tune={tune} /> : null}
      <EffortRibbon model={model} doc={out ?? doc} spot={spot} onSpot={onSpot} />
    </div>
  )
})
