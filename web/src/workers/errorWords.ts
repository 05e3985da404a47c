import type { TFunction } from 'i18next'
import { WorkerError } from './workerError.ts'

/** Words for what was thrown: a worker that was lost, storage that refused. */
export function errorWords(t: TFunction, error: unknown): string {
  if (error instanceof WorkerError)
    return error.reason === 'silent'
      ? t('problem.workerSilent')
      : error.detail
        ? t('problem.workerBroke', { reason: error.detail })
        : t('problem.workerEnded')
  return error instanceof Error ? error.message : String(error)
}
