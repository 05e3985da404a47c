import { Alert, Button } from '@mantine/core'
import type { ArrangementDoc, Id, TuneDoc } from '@velvet-porch/core'
import { lazy, memo, Suspense } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/Sheet.tsx'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import type { Writing } from '../write/useWriting.ts'
import { ArrangeHead } from './ArrangeHead.tsx'
import { EffortRibbon } from './EffortRibbon.tsx'
import { Pins } from './Pins.tsx'
import { useLeavingOut } from './useAsPlayed.ts'
import type { Arranger } from './useArranger.ts'

const TabWriteBar = lazy(async () => ({
  default: (await import('../write/TabWriteBar.tsx')).TabWriteBar,
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
  readonly arranger: Arranger
  readonly spot: Spot | undefined
  readonly marked: MarkedMeasures | undefined
  readonly onSpot: (spot: Spot) => void
  /** The last change of the arrangement, that it can be compared with. */
  readonly previous: string | undefined
  readonly comparing: boolean
  readonly onCompare: (on: boolean) => void
  /** Notes that the shown version has otherwise. */
  readonly changes: number
  readonly ossia: Id | undefined
  readonly onOssia: (ossia: Id | undefined) => void
  /** The version that is shown beside the bench's. */
  readonly beside: Id | undefined
  readonly onBeside: (version: Id | undefined) => void
  /** Writing by hand, where the sheet may be written on. */
  readonly writing: Writing | undefined
}

/** What stands over the sheet: the choices, what has to be said, the pen's tools, and effort. */
export const BenchHead = memo(function BenchHead(props: Props) {
  const { id, tune, doc, model, signs, out, arranger, spot, marked, onSpot, writing } = props
  const { previous, comparing, onCompare, changes, ossia, onOssia, beside, onBeside } = props
  const { t } = useTranslation()
  const [leaves, setLeaves] = useLeavingOut()
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
        <Alert color="lamp" mt="xs" p="xs" data-testid="comparing">
          {t('arrange.compare.shown', { label: previous, count: changes })}{' '}
          <Button size="compact-sm" ml="sm" onClick={() => onCompare(false)}>
            {t('arrange.compare.back')}
          </Button>
        </Alert>
      ) : null}
      {leaves && doc ? (
        <Alert color="lamp" mt="xs" p="xs" data-testid="left-out">
          {t('view.leftOut', { name: doc.setup.player.name || t('instrument.adult') })}{' '}
          <Button size="compact-sm" ml="sm" onClick={() => setLeaves(false)}>
            {t('view.putIn')}
          </Button>
        </Alert>
      ) : null}
      {kept ? (
        <Alert color="lamp" mt="xs" p="xs" data-testid="ossia-shown">
          {t('easier.shown', { what: kept.name })}{' '}
          <Button size="compact-sm" ml="sm" onClick={() => onOssia(undefined)}>
            {t('easier.hide')}
          </Button>
        </Alert>
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
          {arranger.failed.message}{' '}
          {arranger.failed.locks.length > 0 ? (
            <Button
              size="compact-sm"
              ml="sm"
              onClick={() => {
                const { settings, locks, label } = arranger.failed!
                void arranger.arrange(
                  { ...settings, locks: settings.locks.filter((l) => !locks.includes(l.id)) },
                  label,
                )
              }}
            >
              {t('arrange.withoutThem')}
            </Button>
          ) : (
            t('arrange.tryLower')
          )}
        </Alert>
      ) : null}
      {arranger.stale && arranger.progress === undefined && doc ? (
        <Alert color="lamp" mt="xs" p="xs">
          {t('arrange.stale')}{' '}
          <Button size="compact-sm" ml="sm" onClick={() => void arranger.again()}>
            {t('arrange.again')}
          </Button>
          {marked ? (
            <Button
              size="compact-sm"
              ml="xs"
              variant="default"
              onClick={() => void arranger.rearrange(marked.from, marked.to)}
            >
              {t('arrange.selection', {
                count: marked.to - marked.from + 1,
                from: model.numbers[marked.from],
                to: model.numbers[marked.to],
              })}
            </Button>
          ) : null}
          <Button size="compact-sm" ml="xs" variant="default" onClick={() => void arranger.accept()}>
            {t('arrange.accept')}
          </Button>
        </Alert>
      ) : null}
      {arranger.otherHand && !arranger.stale && arranger.progress === undefined && doc ? (
        <Alert color="lamp" mt="xs" p="xs">
          {t('arrange.otherHand', { name: arranger.otherHand.name || t('instrument.adult') })}{' '}
          <Button size="compact-sm" ml="sm" onClick={() => void arranger.again()}>
            {t('arrange.again')}
          </Button>
        </Alert>
      ) : null}
      {writing?.on && doc ? (
        <Suspense>
          <TabWriteBar
            model={model}
            doc={doc}
            writing={writing}
            marked={marked}
            onArrange={arranger.rearrange}
          />
        </Suspense>
      ) : null}
      {tune?.pins?.length ? <Pins tune={tune} /> : null}
      <EffortRibbon model={model} doc={out ?? doc} spot={spot} onSpot={onSpot} />
    </div>
  )
})
