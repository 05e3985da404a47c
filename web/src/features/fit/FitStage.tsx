import { present } from '@velvet-porch/core/invariant'
import type { TFunction } from 'i18next'
import { Alert, Button, Group, Progress, Text } from '@mantine/core'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { FitOption } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useArrangement, useTune } from '../../state/useTune.ts'
import { TuneGate } from '../../ui/TuneGate.tsx'
import { FitChart } from './FitChart.tsx'
import { FitConditions } from './FitConditions.tsx'
import { FitDetail } from './FitDetail.tsx'
import type { FitState } from './fitRun.ts'
import { FitTable } from './FitTable.tsx'
import { useFitting, type Fitting } from './useFitting.ts'
import { WhatMatters } from './WhatMatters.tsx'
import css from './FitStage.module.css'

/** Tuning, key and capo chosen together. */
export function FitStage() {
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <TuneGate opened={opened}>
      {(tune) => (doc === undefined ? null : <FitBench key={id} tune={tune} doc={doc} />)}
    </TuneGate>
  )
}

function FitBench({ tune, doc }: { tune: TuneDoc; doc: ArrangementDoc | null }) {
  const { t } = useTranslation()
  const fitting = useFitting(tune, doc)
  const { conditions, setConditions, preferences, setPreferences, voice, fault, looked, player } = fitting
  return (
    <div className={css.fit}>
      <aside className={css['fit-side']}>
        <FitConditions
          tune={tune}
          conditions={conditions}
          onConditions={setConditions}
          arranged={doc !== null}
          voice={voice}
          fault={fault}
          chosen={looked}
          player={player}
        />
      </aside>
      <div className={css['fit-main']}>
        <div className="bench-title">
          <h1>{tune.title}</h1>
          <span className="setup">{t('fit.subtitle')}</span>
        </div>
        <RunLine fitting={fitting} />
        <Obstacles fitting={fitting} />
        <WhatMatters preferences={preferences} onPreferences={setPreferences} sings={voice !== undefined} />
        <Found fitting={fitting} />
      </div>
    </div>
  )
}

/** Starts and stops the search, and says how far it is. */
function RunLine({ fitting }: { fitting: Fitting }) {
  const { t } = useTranslation()
  const { run, running, state, gap, refused, question, preferences, order } = fitting
  return (
    <Group gap={10} my={8}>
      {running ? (
        <Button variant="default" onClick={() => run.cancel()}>
          {t('fit.stop')}
        </Button>
      ) : (
        <Button
          disabled={gap !== undefined || refused !== undefined}
          onClick={() => void run.start(question, preferences)}
        >
          {t(state.phase === 'idle' ? 'fit.start' : 'fit.again')}
        </Button>
      )}
      {running ? (
        <Progress
          className={css['fit-progress']}
          value={100 * state.share}
          aria-label={t(state.phase === 'estimating' ? 'fit.estimating' : 'fit.working')}
        />
      ) : null}
      <Text size="sm" c="dimmed" role="status" data-testid="fit-status">
        {statusWords(t, state, order)}
      </Text>
    </Group>
  )
}

/** Why nothing can be looked for, or what stands in the way of the voice. */
function Obstacles({ fitting }: { fitting: Fitting }) {
  const { t } = useTranslation()
  const { gap, refused, narrow, words, conditions, setConditions } = fitting
  return (
    <>
      {gap ? <Alert color="red">{t(`fit.gap.${gap}`)}</Alert> : null}
      {refused ? <Alert color="red">{t('fit.refused')}</Alert> : null}
      {narrow ? (
        <Alert color="lamp" mb={8} data-testid="narrow">
          {t('fit.voice.narrow', {
            count: narrow.missing,
            outside: narrow.nearest.outside,
            shift: words.signed(narrow.nearest.shift),
          })}{' '}
          <Button
            size="compact-xs"
            onClick={() => setConditions({ ...conditions, wanted: narrow.nearest.shift })}
          >
            {t('fit.voice.keep')}
          </Button>
        </Alert>
      ) : null}
    </>
  )
}

/** What was found: the list, the picture, and the choice that is looked at. */
function Found({ fitting }: { fitting: Fitting }) {
  const { t } = useTranslation()
  const { order, shown, drawn, best, numbers, chosen, looked, words, question, state, more } = fitting
  const { setChosen, setHovered, conditions, busy, layer, use, copy } = fitting
  return (
    <>
      {order.length > 0 ? (
        <>
          <FitTable
            options={shown}
            best={best}
            numbers={numbers}
            chosen={chosen?.id}
            onChoose={setChosen}
            onHover={setHovered}
            words={words}
            sings={question.voice !== undefined}
            further={order.length - shown.length}
            onMore={more}
          />
          <FitChart
            options={drawn}
            best={best}
            wanted={question.wanted}
            chosen={looked?.id}
            onChoose={setChosen}
            words={words}
          />
        </>
      ) : state.phase === 'done' ? (
        <Alert color="red">{t('fit.nothing')}</Alert>
      ) : null}
      {looked ? (
        <FitDetail
          question={question}
          option={looked}
          layer={layer}
          partners={conditions.partners}
          words={words}
          numbers={numbers}
          busy={busy}
          onUse={use}
          onCopy={copy}
        />
      ) : null}
    </>
  )
}

function statusWords(
  t: TFunction,
  { phase, seconds, failed }: FitState,
  options: readonly FitOption[],
): string {
  if (phase === 'idle') return t('fit.hint')
  const full = options.filter((o) => !o.estimated).length
  return [
    ...(phase === 'stopped' ? [t('fit.stopped')] : []),
    t('fit.counted', { count: options.length, full }),
    ...(seconds === undefined ? [] : [t('fit.took', { seconds: seconds.toFixed(1) })]),
    ...(failed > 0 ? [t('fit.failed', { count: failed })] : []),
  ].join(' ')
}
